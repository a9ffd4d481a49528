//! bench bridge-esp32
//! pin IO25 output pwm
//! pin IO26 output write
//! pin IO27 output write
//! quiet
const int EN = 25, IN1 = 26, IN2 = 27;
const int channel = 0;
void setup() {
  ledcSetup(channel, 5000, 10);
  ledcAttachPin(EN, channel);
  pinMode(IN1, OUTPUT);
  pinMode(IN2, OUTPUT);
}
void paddle(int s) {
  digitalWrite(IN1, s >= 0);
  digitalWrite(IN2, s < 0);
  ledcWrite(channel, abs(s));
}
void loop() {
  for (int s = -1000; s <= 1000; s += 50) { paddle(s); delay(30); }
}
