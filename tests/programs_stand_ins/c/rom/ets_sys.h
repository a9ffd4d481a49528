#pragma once
static inline void ets_delay_us(int t) {
  (void)t, waits();
}
