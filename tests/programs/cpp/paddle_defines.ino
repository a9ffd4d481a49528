//! bench wave-tank
//! pin D9 output pwm
//! pin D8 output write
//! pin D7 output write
//! says program-pin-undriven
// The wave paddle alone, by constants.
#define PADDLE_EN   9
#define PADDLE_IN1  8
#define PADDLE_IN2  7

void setup() {
  pinMode(PADDLE_EN, OUTPUT);
  pinMode(PADDLE_IN1, OUTPUT);
  pinMode(PADDLE_IN2, OUTPUT);
}

void loop() {
  digitalWrite(PADDLE_IN1, HIGH);
  digitalWrite(PADDLE_IN2, LOW);
  analogWrite(PADDLE_EN, 180);
  delay(1500);
  digitalWrite(PADDLE_IN1, LOW);
  digitalWrite(PADDLE_IN2, HIGH);
  analogWrite(PADDLE_EN, 180);
  delay(1500);
  analogWrite(PADDLE_EN, 0);
  delay(500);
}
