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
#include "hardware/gpio.h"
typedef struct { uint pwm, in1, in2; } motor_t;
static const motor_t LEFT = {.pwm = 2, .in1 = 3, .in2 = 4}, RIGHT = {.pwm = 6, .in1 = 7, .in2 = 8};
#define STANDBY 5
static void motor_init(const motor_t *m) {
  gpio_init(m->in1); gpio_set_dir(m->in1, GPIO_OUT);
  gpio_init(m->in2); gpio_set_dir(m->in2, true);
  gpio_set_function(m->pwm, GPIO_FUNC_PWM);
  pwm_config c = pwm_get_default_config();
  pwm_config_set_wrap(&c, 999);
  pwm_config_set_clkdiv(&c, 6.25f);
  pwm_init(pwm_gpio_to_slice_num(m->pwm), &c, true);
}
static void motor_set(const motor_t *m, int permille) {
  gpio_put(m->in1, permille > 0);
  gpio_put(m->in2, permille < 0);
  pwm_set_gpio_level(m->pwm, permille < 0 ? -permille : permille);
}
int main() {
  stdio_init_all();
  motor_init(&LEFT);
  motor_init(&RIGHT);
  gpio_init(STANDBY);
  gpio_set_dir(STANDBY, GPIO_OUT);
  gpio_put(STANDBY, 1);
  while (true) {
    motor_set(&LEFT, 500); motor_set(&RIGHT, -500); sleep_ms(2000);
    motor_set(&LEFT, -500); motor_set(&RIGHT, 500); sleep_ms(2000);
  }
}
