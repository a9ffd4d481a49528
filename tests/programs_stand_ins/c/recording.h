// C of kits that records; what waits forever is stopped.
#pragma once
#include <signal.h>
#include <stdbool.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <unistd.h>
typedef unsigned int uint;
static inline void drives(const char* kind, int pin) {
  static bool said[256];
  if (pin < 0 || pin > 255 || said[pin]) return;
  said[pin] = true;
  printf("drives %s%d\n", kind, pin);
}
static inline void waits(void) {
  static long n;
  if (++n > 20000) {
    fflush(stdout);
    exit(0);
  }
}
