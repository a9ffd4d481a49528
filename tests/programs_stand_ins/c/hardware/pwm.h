#pragma once
static inline uint pwm_gpio_to_slice_num(uint p) {
  return (p >> 1) & 7;
}
static inline uint pwm_gpio_to_channel(uint p) {
  return p & 1;
}
static inline void pwm_set_wrap(uint s, uint16_t w) {
  (void)s, (void)w;
}
static inline void pwm_set_clkdiv(uint s, float d) {
  (void)s, (void)d;
}
typedef struct {
  int top;
} pwm_config;
static inline pwm_config pwm_get_default_config(void) {
  return (pwm_config){0};
}
static inline void pwm_config_set_wrap(pwm_config* c, uint16_t w) {
  c->top = w;
}
static inline void pwm_config_set_clkdiv(pwm_config* c, float d) {
  (void)c, (void)d;
}
static inline void pwm_init(uint s, pwm_config* c, bool e) {
  (void)s, (void)c, (void)e;
}
static inline void pwm_set_gpio_level(uint p, uint16_t l) {
  (void)l, drives("", (int)p);
}
static inline void pwm_set_enabled(uint s, bool e) {
  (void)s, (void)e;
}
static inline void pwm_set_chan_level(uint s, uint c, uint16_t l) {
  (void)l, drives("", (int)(2 * s + c));
}
