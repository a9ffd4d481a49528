#pragma once
#include "recording.h"
typedef int gpio_num_t;
enum { GPIO_NUM_25 = 25, GPIO_NUM_26, GPIO_NUM_27 };
enum { GPIO_MODE_INPUT = 1, GPIO_MODE_OUTPUT = 2, GPIO_PULLUP_DISABLE = 0 };
typedef struct {
  uint64_t pin_bit_mask;
  int mode, pull_up_en, pull_down_en, intr_type;
} gpio_config_t;
#define BIT64(n) (1ULL << (n))
#define ESP_ERROR_CHECK(x) (x)
static inline int gpio_config(const gpio_config_t* c) {
  return c->mode == 0;
}
static inline void gpio_reset_pin(gpio_num_t p) {
  (void)p;
}
static inline void gpio_set_direction(gpio_num_t p, int m) {
  (void)p, (void)m;
}
static inline void gpio_set_level(gpio_num_t p, int v) {
  (void)v, drives("", p);
}
void app_main(void);
int main(void) {
  app_main();
}
