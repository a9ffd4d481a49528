#pragma once
static inline void _delay_ms(double t) {
  (void)t;
  look();
  waits();
}
#define _delay_us _delay_ms
