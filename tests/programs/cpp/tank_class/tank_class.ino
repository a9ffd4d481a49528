//! bench wave-tank
//! pin D9 output pwm
//! pin D8 output write
//! pin D7 output write
//! pin D6 output pwm
//! pin A0 output write
//! pin A1 output write
//! says program-pin-undriven
// Two files: a class in a header of its own, pins in another.
#include "bridge.h"
#include "pins.h"

Bridge paddle(pins::kPaddleEn, pins::kPaddleA, pins::kPaddleB);
Bridge gate{pins::kGateEn, pins::kGateA, pins::kGateB};

void setup() {
  paddle.begin();
  gate.begin();
}

void loop() {
  paddle.drive(160);
  gate.drive(-90);
  delay(700);
  paddle.drive(-160);
  gate.drive(90);
  delay(700);
  paddle.stop();
  gate.stop();
}
