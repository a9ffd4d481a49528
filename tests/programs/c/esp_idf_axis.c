//! bench step-dir-esp32
//! pin IO25 output write
//! pin IO26 output write
//! pin IO27 output write
//! quiet
#include "driver/gpio.h"
#include "rom/ets_sys.h"
#include "freertos/FreeRTOS.h"
typedef struct { gpio_num_t step, dir, en; } axis_t;
static axis_t carriage = { GPIO_NUM_25, GPIO_NUM_26, GPIO_NUM_27 };
static void axis_init(axis_t *a) {
  uint64_t mask = BIT64(a->step) | BIT64(a->dir) | BIT64(a->en);
  gpio_config_t c = { .mode = GPIO_MODE_OUTPUT, .pin_bit_mask = mask };
  gpio_config(&c);
  gpio_set_level(a->en, 0);
}
static void axis_move(axis_t *a, int n) {
  gpio_set_level(a->dir, n > 0);
  for (int i = 0; i < (n < 0 ? -n : n); i++) {
    gpio_set_level(a->step, 1);
    ets_delay_us(20);
    gpio_set_level(a->step, 0);
    vTaskDelay(pdMS_TO_TICKS(5));
  }
}
void app_main(void) {
  axis_init(&carriage);
  while (1) { axis_move(&carriage, 400); axis_move(&carriage, -400); }
}
