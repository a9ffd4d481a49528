//! bench bridge-esp32
//! pin IO25 output pwm
//! pin IO26 output write
//! pin IO27 output write
//! says program-duty-scale
// Eight bits set up, sixteen written.
#define PADDLE_PWM 25
#define PADDLE_A 26
#define PADDLE_B 27
void setup() {
  ledcAttach(PADDLE_PWM, 20000, 8);
  pinMode(PADDLE_A, OUTPUT);
  pinMode(PADDLE_B, OUTPUT);
}
void loop() {
  digitalWrite(PADDLE_A, HIGH); digitalWrite(PADDLE_B, LOW);
  ledcWrite(PADDLE_PWM, 40000);
  delay(1000);
  digitalWrite(PADDLE_A, LOW); digitalWrite(PADDLE_B, HIGH);
  ledcWrite(PADDLE_PWM, 0);
  delay(1000);
}
