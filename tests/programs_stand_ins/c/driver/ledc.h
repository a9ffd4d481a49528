#pragma once
#include "driver/gpio.h"
enum { LEDC_LOW_SPEED_MODE, LEDC_TIMER_0 = 0, LEDC_TIMER_1 = 1, LEDC_TIMER_10_BIT = 10, LEDC_AUTO_CLK = 0, LEDC_CHANNEL_2 = 2 };
typedef struct {
  int speed_mode, timer_num, duty_resolution, freq_hz, clk_cfg;
} ledc_timer_config_t;
typedef struct {
  int speed_mode, channel, timer_sel, gpio_num, duty, hpoint;
} ledc_channel_config_t;
static int ledc_pins[8];
static inline int ledc_timer_config(const ledc_timer_config_t* c) {
  return c->timer_num < 0;
}
static inline int ledc_channel_config(const ledc_channel_config_t* c) {
  return ledc_pins[c->channel] = c->gpio_num, 0;
}
static inline void ledc_set_duty(int m, int c, uint32_t d) {
  (void)m, (void)d, drives("", ledc_pins[c]);
}
static inline void ledc_update_duty(int m, int c) {
  (void)m, (void)c;
}
