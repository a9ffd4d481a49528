//! bench bridge
//! pin D5 output pwm
//! pin D7 output write
//! pin D8 output write
//! pin D6 output pwm
//! pin D2 output write
//! pin D4 output write
//! quiet
struct Drive {
  uint8_t en, a, b;
  int now;
};
Drive paddle = {5, 7, 8, 0};
Drive sand{6, 2, 4, 0};
static Drive *const all[] = {&paddle, &sand};

void prepare(const Drive &d) {
  for (uint8_t p : {d.en, d.a, d.b}) pinMode(p, OUTPUT);
}
void go(Drive &d, int speed) {
  d.now = constrain(speed, -255, 255);
  digitalWrite(d.a, d.now > 0);
  digitalWrite(d.b, d.now < 0);
  analogWrite(d.en, abs(d.now));
}
void setup() {
  for (Drive *d : all) prepare(*d);
}
void loop() {
  for (int v = -200; v <= 200; v += 10) {
    go(paddle, v);
    go(sand, -v);
    delay(50);
  }
  go(paddle, 0);
  go(sand, 0);
  delay(1000);
}
