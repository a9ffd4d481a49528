//! bench wave-tank
//! pin D9 output pwm
//! pin D8 output write
//! pin D7 output write
//! pin D6 output pwm
//! pin A0 output write
//! pin A1 output write
//! pin D5 output pwm
//! pin D2 output write
//! pin D3 output write
//! pin D4 output write
//! quiet
// Everything on the tank, motors as a table of structs.
struct Bridge {
  uint8_t en;
  uint8_t in1;
  uint8_t in2;
};

const Bridge bridges[] = {
  {9, 8, 7},    // wave paddle
  {6, A0, A1},  // sluice gate
};
const int pumpPin = 5;
constexpr int kStep = 2, kDir = 3, kEnable = 4;

void run(const Bridge &b, int speed) {
  digitalWrite(b.in1, speed > 0 ? HIGH : LOW);
  digitalWrite(b.in2, speed < 0 ? HIGH : LOW);
  analogWrite(b.en, speed < 0 ? -speed : speed);
}

void carriage(long steps) {
  digitalWrite(kDir, steps > 0);
  digitalWrite(kEnable, LOW);
  for (long i = 0; i < labs(steps); i++) {
    digitalWrite(kStep, HIGH);
    delayMicroseconds(10);
    digitalWrite(kStep, LOW);
    delay(3);
  }
  digitalWrite(kEnable, HIGH);
}

void setup() {
  for (const auto &b : bridges) {
    pinMode(b.en, OUTPUT);
    pinMode(b.in1, OUTPUT);
    pinMode(b.in2, OUTPUT);
  }
  const int outputs[] = {pumpPin, kStep, kDir, kEnable};
  for (size_t i = 0; i < sizeof(outputs) / sizeof(outputs[0]); i++) pinMode(outputs[i], OUTPUT);
}

void loop() {
  run(bridges[0], 200);
  delay(1000);
  run(bridges[0], -200);
  delay(1000);
  run(bridges[0], 0);
  run(bridges[1], 150);
  delay(800);
  run(bridges[1], -150);
  delay(800);
  run(bridges[1], 0);
  analogWrite(pumpPin, 220);
  carriage(200);
  carriage(-200);
  analogWrite(pumpPin, 0);
}
