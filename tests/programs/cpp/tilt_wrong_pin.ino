//! bench servo
//! pin D10 output servo
//! says program-pin-slip
#include <Servo.h>
Servo cameraTilt;
void setup() { cameraTilt.attach(10); }
void loop() { cameraTilt.write(90); delay(1000); cameraTilt.write(45); delay(1000); }
