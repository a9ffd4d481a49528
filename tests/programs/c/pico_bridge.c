//! bench tb6612
//! pin GP2 output pwm
//! pin GP3 output write
//! pin GP4 output write
//! pin GP5 output write
//! pin GP6 output pwm
//! pin GP7 output write
//! pin GP8 output write
//! quiet
#include "pico/stdlib.h"
#include "hardware/pwm.h"

typedef struct {
  uint pwm, a, b;
} motor_t;

static const motor_t left = {.pwm = 2, .a = 3, .b = 4};
static const motor_t right = {.pwm = 6, .a = 7, .b = 8};
static const uint STANDBY = 5;

static void motor_init(const motor_t *m) {
  gpio_set_function(m->pwm, GPIO_FUNC_PWM);
  uint slice = pwm_gpio_to_slice_num(m->pwm);
  pwm_set_wrap(slice, 999);
  pwm_set_clkdiv(slice, 12.5f);
  pwm_set_enabled(slice, true);
  gpio_init(m->a);
  gpio_set_dir(m->a, GPIO_OUT);
  gpio_init(m->b);
  gpio_set_dir(m->b, GPIO_OUT);
}

static void motor_run(const motor_t *m, int v) {
  gpio_put(m->a, v > 0);
  gpio_put(m->b, v < 0);
  pwm_set_chan_level(pwm_gpio_to_slice_num(m->pwm), pwm_gpio_to_channel(m->pwm), v < 0 ? -v : v);
}

int main(void) {
  motor_init(&left);
  motor_init(&right);
  gpio_init(STANDBY);
  gpio_set_dir(STANDBY, GPIO_OUT);
  gpio_put(STANDBY, 1);
  for (;;) {
    motor_run(&left, 600);
    motor_run(&right, -600);
    sleep_ms(700);
    motor_run(&left, -600);
    motor_run(&right, 600);
    sleep_ms(700);
    motor_run(&left, 0);
    motor_run(&right, 0);
    gpio_put(STANDBY, 0);
    sleep_ms(700);
    gpio_put(STANDBY, 1);
  }
}
