#pragma once
static inline uint pwm_gpio_to_slice_num(uint p) { return (p >> 1) & 7; }
static inline uint pwm_gpio_to_channel(uint p) { return p & 1; }
static inline void pwm_set_wrap(uint s, uint16_t w) { (void)s, (void)w; }
static inline void pwm_set_clkdiv(uint s, float d) { (void)s, (void)d; }
static inline void pwm_set_enabled(uint s, bool e) { (void)s, (void)e; }
static inline void pwm_set_chan_level(uint s, uint c, uint16_t l) { (void)l, drives("", (int)(2 * s + c)); }
