#pragma once
#include "recording.h"
#define GPIO_OUT 1
#define GPIO_IN 0
#define GPIO_FUNC_PWM 4
static inline void stdio_init_all(void) {}
static inline void gpio_init(uint p) {
  (void)p;
}
static inline void gpio_init_mask(uint32_t m) {
  (void)m;
}
static inline void gpio_set_dir(uint p, bool d) {
  (void)p, (void)d;
}
static inline void gpio_set_dir_out_masked(uint32_t m) {
  (void)m;
}
static inline void gpio_put(uint p, bool v) {
  (void)v, drives("", p);
}
static inline void gpio_put_masked(uint32_t m, uint32_t v) {
  (void)v;
  for (int k = 0; k < 30; ++k)
    if (m >> k & 1) drives("", k);
}
static inline void gpio_set_function(uint p, int f) {
  (void)p, (void)f;
}
static inline void sleep_ms(uint32_t t) {
  (void)t, waits();
}
static inline void sleep_us(uint64_t t) {
  (void)t, waits();
}
