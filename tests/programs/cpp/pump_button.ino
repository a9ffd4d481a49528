//! bench button
//! pin D5 output pwm
//! pin D2 pull-up read
//! quiet
enum Pin { START = 2, PUMP = 5 };
volatile bool running = false;
unsigned long last;
void toggle() {
  if (millis() - last > 200) running = !running;
  last = millis();
}
void setup() {
  pinMode(START, INPUT_PULLUP);
  pinMode(PUMP, OUTPUT);
  attachInterrupt(digitalPinToInterrupt(START), toggle, FALLING);
}
void loop() { analogWrite(PUMP, running ? 200 : 0); }
