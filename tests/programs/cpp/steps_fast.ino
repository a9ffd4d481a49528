//! bench step-dir
//! pin D2 output write
//! pin D3 output write
//! pin D4 output write
//! says program-step-timing
#define STEP 2
#define DIR 3
#define ENA 4
#define STEPS_PER_REV 200
unsigned int us = 120;
void pulse() { digitalWrite(STEP, HIGH); delayMicroseconds(us); digitalWrite(STEP, LOW); delayMicroseconds(us); }
void setup() { pinMode(STEP, OUTPUT); pinMode(DIR, OUTPUT); pinMode(ENA, OUTPUT); digitalWrite(ENA, LOW); }
void loop() {
  digitalWrite(DIR, HIGH);
  for (int x = 0; x < STEPS_PER_REV * 4; x++) pulse();
  delay(1000);
  digitalWrite(DIR, LOW);
  for (int x = 0; x < STEPS_PER_REV * 4; x++) pulse();
  delay(1000);
}
