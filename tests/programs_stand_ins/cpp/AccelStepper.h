#pragma once
#include "Arduino.h"
struct AccelStepper {
  enum { DRIVER = 1 };
  int step, dir;
  AccelStepper(int, int s, int d) : step(s), dir(d) {}
  void setEnablePin(int pin) { drives(pin); }
  void setPinsInverted(bool, bool, bool) {}
  void setMaxSpeed(float) {}
  void setAcceleration(float) {}
  void enableOutputs() {}
  long distanceToGo() { return 0; }
  long currentPosition() { return 1; }
  void moveTo(long) {}
  void run() {
    drives(step);
    drives(dir);
  }
};
