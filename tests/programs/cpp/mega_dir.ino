//! bench dir-pwm
//! pin D22 output write
//! pin D9 output pwm
//! quiet
#define DIRECTION 22
#define SPEED 9
void go(boolean forward, byte speed) { digitalWrite(DIRECTION, forward); analogWrite(SPEED, speed); }
void setup() { pinMode(DIRECTION, OUTPUT); pinMode(SPEED, OUTPUT); }
void loop() { go(true, 100); delay(1000); go(false, 100); delay(1000); go(true, 0); delay(1000); }
