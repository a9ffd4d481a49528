//! bench array
//! pin D8 output write
//! pin D9 output write
//! pin D10 output write
//! pin D11 output write
//! quiet
#include <Stepper.h>
const int stepsPerTurn = 2048;
Stepper gate(stepsPerTurn, 8, 10, 9, 11);
void setup() {
  gate.setSpeed(12);
  Serial.begin(115200);
}
void loop() {
  gate.step(stepsPerTurn / 4);
  delay(500);
  gate.step(-stepsPerTurn / 4);
  delay(500);
}
