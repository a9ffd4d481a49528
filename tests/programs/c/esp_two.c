//! bench drv8833
//! pin IO16 output pwm
//! pin IO17 output pwm
//! pin IO18 output pwm
//! pin IO19 output pwm
//! quiet
#include "driver/ledc.h"
#include "freertos/FreeRTOS.h"
#include "freertos/task.h"
static const int kPins[2][2] = {{16, 17}, {18, 19}};
static void setup_channel(int ch, int gpio) {
  ledc_channel_config_t c = {.gpio_num = gpio, .speed_mode = LEDC_LOW_SPEED_MODE, .channel = ch, .timer_sel = LEDC_TIMER_0, .duty = 0, .hpoint = 0};
  ESP_ERROR_CHECK(ledc_channel_config(&c));
}
static void side(int m, int speed) {
  int forth = speed > 0 ? speed : 0, back = speed < 0 ? -speed : 0;
  ledc_set_duty(LEDC_LOW_SPEED_MODE, 2 * m, forth);
  ledc_update_duty(LEDC_LOW_SPEED_MODE, 2 * m);
  ledc_set_duty(LEDC_LOW_SPEED_MODE, 2 * m + 1, back);
  ledc_update_duty(LEDC_LOW_SPEED_MODE, 2 * m + 1);
}
void app_main(void) {
  ledc_timer_config_t t = {.speed_mode = LEDC_LOW_SPEED_MODE, .timer_num = LEDC_TIMER_0, .duty_resolution = LEDC_TIMER_10_BIT, .freq_hz = 20000};
  ESP_ERROR_CHECK(ledc_timer_config(&t));
  for (int m = 0; m < 2; m++)
    for (int k = 0; k < 2; k++) setup_channel(2 * m + k, kPins[m][k]);
  while (1) {
    side(0, 700); side(1, -700);
    vTaskDelay(pdMS_TO_TICKS(1500));
    side(0, -700); side(1, 700);
    vTaskDelay(pdMS_TO_TICKS(1500));
    side(0, 0); side(1, 0);
    vTaskDelay(pdMS_TO_TICKS(3000));
  }
}
