//! bench l9110s
//! pin D5 output pwm
//! pin D6 output pwm
//! pin D9 output pwm
//! pin D10 output pwm
//! quiet
template <int A, int B>
struct Half {
  void begin() { pinMode(A, OUTPUT); pinMode(B, OUTPUT); }
  void go(int v) { analogWrite(A, v > 0 ? v : 0); analogWrite(B, v < 0 ? -v : 0); }
};
struct Plain {
  int a, b;
  void begin() { pinMode(a, OUTPUT); pinMode(b, OUTPUT); }
  void go(int v) { analogWrite(a, v > 0 ? v : 0); analogWrite(b, v < 0 ? -v : 0); }
};
Plain sides[2] = {{5, 6}, {9, 10}};
void setup() { for (auto& s : sides) s.begin(); }
void loop() {
  for (auto& s : sides) s.go(120);
  delay(500);
  for (auto& s : sides) s.go(-120);
  delay(500);
  for (auto& s : sides) s.go(0);
}
