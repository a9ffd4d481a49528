//! bench step-dir
//! pin D2 output write
//! pin D3 output write
//! pin D4 output write
//! quiet
// Steps from a timer's interrupt, counted down.
volatile long todo = 0;
volatile bool level = false;
const int STEP = 2, DIRECTION = 3, nENABLE = 4;
ISR(TIMER2_COMPA_vect) {
  if (todo == 0) return;
  level = !level;
  digitalWrite(STEP, level);
  if (!level) --todo;
}
void moveBy(long steps) {
  digitalWrite(DIRECTION, steps > 0 ? HIGH : LOW);
  noInterrupts();
  todo = labs(steps);
  interrupts();
  while (todo > 0) {}
}
void setup() {
  pinMode(STEP, OUTPUT); pinMode(DIRECTION, OUTPUT); pinMode(nENABLE, OUTPUT);
  digitalWrite(nENABLE, LOW);
  cli();
  TCCR2A = _BV(WGM21);
  TCCR2B = _BV(CS22);
  OCR2A = 124;
  TIMSK2 |= _BV(OCIE2A);
  sei();
}
void loop() {
  moveBy(400); delay(500);
  moveBy(-400); delay(500);
}
