//! bench low-side
//! pin D5 output pwm
//! quiet
// Half typed: what stands whole is read.
const int pump = 5;
void setup() {
  pinMode(pump, OUTPUT);
  if (digitalRead(
}
void loop() {
  analogWrite(pump, 90);
  delay(100);
  analogWrite(pump, 0);
