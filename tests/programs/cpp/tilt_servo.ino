//! bench servo
//! pin D9 output servo
//! quiet
#include <Servo.h>
static constexpr auto TILT_PIN = 9;
Servo tilt;
int angle = 90;
void setup() { tilt.attach(TILT_PIN, 700, 2300); }
void loop() {
  for (angle = 60; angle <= 120; angle += 5) { tilt.write(angle); delay(40); }
  for (angle = 120; angle >= 60; angle -= 5) { tilt.write(angle); delay(40); }
}
