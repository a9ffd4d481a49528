//! bench low-side
//! pin D5 output pwm
//! untold 1
//! quiet
#include <TidePump.h>
TidePump reserve(10, 11);
void setup() { pinMode(5, OUTPUT); reserve.begin(); }
void loop() { analogWrite(5, 120); reserve.run(40); delay(10); analogWrite(5, 0); }
