//! bench stepper-tb6612
//! pin GP2 output write
//! pin GP3 output write
//! pin GP4 output write
//! pin GP5 output write
//! quiet
#include "pico/stdlib.h"
#define COILS ((1u << 2) | (1u << 3) | (1u << 4) | (1u << 5))
static const uint32_t seq[4] = {0x5u << 2, 0x6u << 2, 0xAu << 2, 0x9u << 2};
int main() {
  gpio_init_mask(COILS);
  gpio_set_dir_out_masked(COILS);
  for (int i = 0;; i = (i + 1) % 4) {
    gpio_put_masked(COILS, seq[i]);
    sleep_ms(5);
  }
}
