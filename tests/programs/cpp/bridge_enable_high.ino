//! bench bridge
//! pin D5 output pwm
//! pin D7 output write
//! pin D8 output write
//! pin D6 output pwm
//! pin D2 output write
//! pin D3 output write
//! says program-pin-slip
// IN4 is on D4, the program says 3.
const byte EN_A = 5, IN_1 = 7, IN_2 = 8;
const byte EN_B = 6, IN_3 = 2, IN_4 = 3;
const byte outs[] = {EN_A, IN_1, IN_2, EN_B, IN_3, IN_4};
enum Way { STOP, FORTH, BACK };
void left(Way w, byte v) {
  digitalWrite(IN_1, w == FORTH ? HIGH : LOW);
  digitalWrite(IN_2, w == BACK ? HIGH : LOW);
  analogWrite(EN_A, w == STOP ? 0 : v);
}
void right(Way w, byte v) {
  digitalWrite(IN_3, w == FORTH ? HIGH : LOW);
  digitalWrite(IN_4, w == BACK ? HIGH : LOW);
  analogWrite(EN_B, w == STOP ? 0 : v);
}
void setup() {
  for (unsigned i = 0; i < sizeof(outs) / sizeof(outs[0]); ++i) pinMode(outs[i], OUTPUT);
}
void loop() {
  left(FORTH, 150); right(FORTH, 150); delay(2000);
  left(BACK, 150); right(BACK, 150); delay(2000);
  left(STOP, 0); right(STOP, 0); delay(5000);
}
