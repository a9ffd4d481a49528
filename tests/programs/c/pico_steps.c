//! bench step-dir-8825
//! pin GP2 output write
//! pin GP3 output write
//! quiet
#include "pico/stdlib.h"
#define STEP_PIN 2
#define DIR_PIN 3
static void pulse(uint32_t wait) {
  gpio_put(STEP_PIN, 1);
  sleep_us(20);
  gpio_put(STEP_PIN, 0);
  sleep_us(wait);
}
int main() {
  gpio_init(STEP_PIN);
  gpio_set_dir(STEP_PIN, GPIO_OUT);
  gpio_init(DIR_PIN);
  gpio_set_dir(DIR_PIN, GPIO_OUT);
  bool way = false;
  while (true) {
    gpio_put(DIR_PIN, way);
    for (int i = 0; i < 200; ++i) pulse(4000);
    way = !way;
    sleep_ms(500);
  }
}
