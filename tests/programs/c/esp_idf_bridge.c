//! bench bridge-esp32
//! pin IO25 output pwm
//! pin IO26 output write
//! pin IO27 output write
//! quiet
#include "driver/gpio.h"
#include "driver/ledc.h"
#include "freertos/FreeRTOS.h"
#include "freertos/task.h"

#define EN GPIO_NUM_25
#define IN1 GPIO_NUM_26
#define IN2 GPIO_NUM_27

static void pwm_init(void) {
  ledc_timer_config_t timer = {
      .speed_mode = LEDC_LOW_SPEED_MODE,
      .timer_num = LEDC_TIMER_1,
      .duty_resolution = LEDC_TIMER_10_BIT,
      .freq_hz = 5000,
      .clk_cfg = LEDC_AUTO_CLK,
  };
  ESP_ERROR_CHECK(ledc_timer_config(&timer));
  ledc_channel_config_t channel = {
      .speed_mode = LEDC_LOW_SPEED_MODE,
      .channel = LEDC_CHANNEL_2,
      .timer_sel = LEDC_TIMER_1,
      .gpio_num = EN,
      .duty = 0,
  };
  ESP_ERROR_CHECK(ledc_channel_config(&channel));
}

static void duty(uint32_t d) {
  ledc_set_duty(LEDC_LOW_SPEED_MODE, LEDC_CHANNEL_2, d);
  ledc_update_duty(LEDC_LOW_SPEED_MODE, LEDC_CHANNEL_2);
}

static void paddle_task(void *arg) {
  while (1) {
    gpio_set_level(IN1, 1);
    gpio_set_level(IN2, 0);
    duty(700);
    vTaskDelay(pdMS_TO_TICKS(1000));
    gpio_set_level(IN1, 0);
    gpio_set_level(IN2, 1);
    duty(700);
    vTaskDelay(1000 / portTICK_PERIOD_MS);
    duty(0);
  }
}

void app_main(void) {
  gpio_config_t io = {
      .pin_bit_mask = (1ULL << IN1) | (1ULL << IN2),
      .mode = GPIO_MODE_OUTPUT,
      .pull_up_en = GPIO_PULLUP_DISABLE,
  };
  gpio_config(&io);
  pwm_init();
  xTaskCreate(paddle_task, "paddle", 2048, NULL, 5, NULL);
}
