#include "bridge.h"

Bridge::Bridge(int en, int a, int b) : _en(en), _a(a), _b(b) {}

void Bridge::begin() {
  pinMode(_en, OUTPUT);
  pinMode(_a, OUTPUT);
  pinMode(_b, OUTPUT);
}

void Bridge::drive(int speed) {
  digitalWrite(_a, speed > 0);
  digitalWrite(_b, speed < 0);
  analogWrite(_en, constrain(abs(speed), 0, 255));
}
