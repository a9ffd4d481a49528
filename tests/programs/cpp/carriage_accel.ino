//! bench step-dir
//! pin D2 output write
//! pin D3 output write
//! pin D4 output write
//! quiet
//! note the enable is written by the library
#include <AccelStepper.h>
AccelStepper carriage(AccelStepper::DRIVER, 2, 3);
void setup() {
  carriage.setEnablePin(4);
  carriage.setPinsInverted(false, false, true);
  carriage.setMaxSpeed(400);
  carriage.setAcceleration(200);
  carriage.enableOutputs();
}
void loop() {
  if (carriage.distanceToGo() == 0) carriage.moveTo(-carriage.currentPosition());
  carriage.run();
}
