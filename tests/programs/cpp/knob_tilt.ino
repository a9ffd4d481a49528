//! bench knob-servo
//! pin D9 servo output
//! pin D2 read pull-up
//! pin D3 read pull-up
//! pin D4 read pull-up
//! quiet
#include <Servo.h>
class Knob {
 public:
  Knob(uint8_t a, uint8_t b, uint8_t press) : _a(a), _b(b), _press(press) {}
  void begin() {
    pinMode(_a, INPUT_PULLUP);
    pinMode(_b, INPUT_PULLUP);
    pinMode(_press, INPUT_PULLUP);
    _was = digitalRead(_a);
  }
  int turned() {
    int a = digitalRead(_a);
    int out = 0;
    if (a != _was && a == LOW) out = digitalRead(_b) ? 1 : -1;
    _was = a;
    return out;
  }
  bool pressed() const { return digitalRead(_press) == LOW; }
 private:
  const uint8_t _a, _b, _press;
  int _was;
};
Knob knob(2, 3, 4);
Servo tilt;
int angle = 90;
void setup() {
  knob.begin();
  tilt.attach(9, 600, 2400);
  tilt.write(angle);
}
void loop() {
  angle += 5 * knob.turned();
  if (knob.pressed()) angle = 90;
  angle = constrain(angle, 20, 160);
  tilt.write(angle);
  delay(2);
}
