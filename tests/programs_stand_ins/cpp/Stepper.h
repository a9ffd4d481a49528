#pragma once
#include "Arduino.h"
struct Stepper {
  int pins[4];
  Stepper(int, int a, int b, int c, int d) : pins{a, b, c, d} {}
  void setSpeed(long) {}
  void step(int) {
    for (int p : pins) drives(p);
  }
};
