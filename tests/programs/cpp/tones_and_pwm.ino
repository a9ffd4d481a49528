//! bench l293d
//! pin D3 output pwm
//! pin D4 output write
//! pin D7 output write
//! pin D11 output tone
//! says program-timer-taken program-pin-unwired
const int buzzer = 11;
void setup() { pinMode(3, OUTPUT); pinMode(4, OUTPUT); pinMode(7, OUTPUT); }
void loop() {
  tone(buzzer, 880, 200);
  digitalWrite(4, HIGH); digitalWrite(7, LOW); analogWrite(3, 150); delay(800);
  digitalWrite(4, LOW); digitalWrite(7, HIGH); analogWrite(3, 150); delay(800);
  analogWrite(3, 0); delay(400);
}
