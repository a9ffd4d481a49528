// The program of the wave tank: paddle, sluice gate, circulation pump and sand carriage.
struct Bridge {
  uint8_t enable, in1, in2;
};
const Bridge paddle = {9, 8, 7};
const Bridge gate = {6, A0, A1};

const int PUMP = 5;
const int CARRIAGE_STEP = 2;
const int CARRIAGE_DIR = 3;
const int CARRIAGE_ENABLE = 4;

void begin(const Bridge &b) {
  pinMode(b.enable, OUTPUT);
  pinMode(b.in1, OUTPUT);
  pinMode(b.in2, OUTPUT);
}

void drive(const Bridge &b, int speed) {
  digitalWrite(b.in1, speed > 0);
  digitalWrite(b.in2, speed < 0);
  analogWrite(b.enable, abs(speed));
}

void carriage(int steps) {
  digitalWrite(CARRIAGE_DIR, steps > 0);
  digitalWrite(CARRIAGE_ENABLE, LOW);  // works while it is low
  for (int i = 0; i < abs(steps); i++) {
    digitalWrite(CARRIAGE_STEP, HIGH);
    delayMicroseconds(10);
    digitalWrite(CARRIAGE_STEP, LOW);
    delay(3);
  }
  digitalWrite(CARRIAGE_ENABLE, HIGH);
}

void setup() {
  begin(paddle);
  begin(gate);
  pinMode(PUMP, OUTPUT);
  pinMode(CARRIAGE_STEP, OUTPUT);
  pinMode(CARRIAGE_DIR, OUTPUT);
  pinMode(CARRIAGE_ENABLE, OUTPUT);
  digitalWrite(CARRIAGE_ENABLE, HIGH);
}

void loop() {
  for (int n = 0; n < 5; n++) {
    drive(paddle, 180);
    delay(700);
    drive(paddle, 0);
    delay(100);
    drive(paddle, -180);
    delay(700);
    drive(paddle, 0);
    delay(100);
  }
  drive(gate, 120);
  delay(400);
  drive(gate, -120);
  delay(400);
  drive(gate, 0);
  analogWrite(PUMP, 200);
  carriage(200);
  carriage(-200);
  analogWrite(PUMP, 0);
}
