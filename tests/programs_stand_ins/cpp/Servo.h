#pragma once
#include "Arduino.h"
struct Servo {
  void attach(int pin, int = 0, int = 0) { drives(pin); }
  void write(int) {}
};
