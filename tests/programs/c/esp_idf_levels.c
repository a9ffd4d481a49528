//! bench drv8833
//! pin IO16 output write
//! pin IO17 output write
//! pin IO18 output write
//! pin IO21 output write
//! says program-pin-slip program-goal-unserved
// One number is not the one that is wired.
#include "driver/gpio.h"
#include "freertos/FreeRTOS.h"
static const gpio_num_t pins[4] = {16, 17, 18, 21};
void app_main(void) {
  for (int i = 0; i < 4; i++) {
    gpio_reset_pin(pins[i]);
    gpio_set_direction(pins[i], GPIO_MODE_OUTPUT);
    gpio_set_level(pins[i], 0);
  }
  while (true) {
    gpio_set_level(pins[0], 1);
    gpio_set_level(pins[2], 1);
    vTaskDelay(500);
    gpio_set_level(pins[0], 0);
    gpio_set_level(pins[1], 1);
    gpio_set_level(pins[2], 0);
    gpio_set_level(pins[3], 1);
    vTaskDelay(500);
    gpio_set_level(pins[1], 0);
    gpio_set_level(pins[3], 0);
  }
}
