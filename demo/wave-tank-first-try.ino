// The same, as somebody wrote it first.
#include <Servo.h>

const int PADDLE_ENABLE = 10;
const int PADDLE_IN1 = 8;
const int PADDLE_IN2 = 7;
const int GATE_ENABLE = 6;
const int GATE_IN1 = A0;
const int GATE_IN2 = A1;
#define PUMP 5
#define STEP_PIN 2
#define DIR_PIN 3
#define ENABLE_PIN 4

Servo tilt;

void setup() {
  Serial.begin(9600);
  const int outputs[] = {PADDLE_ENABLE, PADDLE_IN1, PADDLE_IN2, GATE_ENABLE,
                         GATE_IN1, GATE_IN2, PUMP, STEP_PIN, DIR_PIN, ENABLE_PIN};
  for (int pin : outputs) pinMode(pin, OUTPUT);
  digitalWrite(ENABLE_PIN, HIGH);
  tilt.attach(11);
}

void carriage(int steps) {
  digitalWrite(DIR_PIN, steps > 0 ? HIGH : LOW);
  for (int i = 0; i < abs(steps); i++) {
    digitalWrite(STEP_PIN, HIGH);
    delayMicroseconds(10);
    digitalWrite(STEP_PIN, LOW);
    delayMicroseconds(300);
  }
}

void loop() {
  digitalWrite(PADDLE_IN1, HIGH);
  digitalWrite(PADDLE_IN2, LOW);
  analogWrite(PADDLE_ENABLE, 200);
  delay(700);
  digitalWrite(PADDLE_IN1, LOW);
  digitalWrite(PADDLE_IN2, HIGH);
  delay(700);
  analogWrite(PADDLE_ENABLE, 0);

  digitalWrite(GATE_IN1, HIGH);
  digitalWrite(GATE_IN2, LOW);
  analogWrite(GATE_ENABLE, 1023);
  delay(400);
  analogWrite(GATE_ENABLE, 0);

  analogWrite(PUMP, 200);
  carriage(200);
  carriage(-200);
  analogWrite(PUMP, 0);
}
