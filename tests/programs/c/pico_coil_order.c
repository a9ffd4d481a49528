//! bench stepper-drv8833
//! pin GP2 output write
//! pin GP3 output write
//! pin GP4 output write
//! pin GP5 output write
//! says program-coil-order
#include "pico/stdlib.h"
const uint pins[] = {2, 3, 4, 5};
const uint8_t table[8] = {0b1000, 0b1100, 0b0100, 0b0110, 0b0010, 0b0011, 0b0001, 0b1001};
int main() {
  for (int i = 0; i < 4; i++) { gpio_init(pins[i]); gpio_set_dir(pins[i], GPIO_OUT); }
  uint8_t k = 0;
  while (1) {
    for (int i = 0; i < 4; i++) gpio_put(pins[i], (table[k] >> (3 - i)) & 1);
    k = (k + 1) & 7;
    sleep_ms(4);
  }
}
