//! bench bridge
//! pin D5 output write
//! pin D7 output write
//! pin D8 output write
//! pin D3 output pwm
//! pin D2 output write
//! pin D4 output write
//! says program-pin-slip program-goal-unserved
class Motor {
  int e, a, b;
public:
  Motor(int en, int in1, int in2) { e = en; a = in1; b = in2; pinMode(e, OUTPUT); pinMode(a, OUTPUT); pinMode(b, OUTPUT); }
  void on(bool f) { digitalWrite(a, f ? HIGH : LOW); digitalWrite(b, f ? LOW : HIGH); digitalWrite(e, HIGH); }
  void off() { digitalWrite(e, LOW); }
};
class FastMotor : public Motor {
  int pwm;
public:
  FastMotor(int en, int x, int y) : Motor(en, x, y), pwm(en) {}
  void speed(int s) { on(s > 0); analogWrite(pwm, s > 0 ? s : -s); }
};
Motor *left;
FastMotor *right;
void setup() { left = new Motor(5, 7, 8); right = new FastMotor(3, 2, 4); }
void loop() { left->on(true); right->speed(120); delay(800); left->on(false); right->speed(-120); delay(800); left->off(); right->speed(0); }
