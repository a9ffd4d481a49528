//! bench low-side
//! pin D5 output write
//! says program-goal-unserved
// A dose every so many rounds: nothing happens in the first ones. Its speed, which the bench wants changed, stays.
#define PUMP_PIN 5
unsigned int rounds = 0;
bool dosing = false;
void setup() { pinMode(PUMP_PIN, OUTPUT); }
void loop() {
  rounds++;
  if (!dosing && rounds >= 600) {
    digitalWrite(PUMP_PIN, HIGH);
    dosing = true;
    rounds = 0;
  } else if (dosing && rounds >= 40) {
    digitalWrite(PUMP_PIN, LOW);
    dosing = false;
    rounds = 0;
  }
  delay(100);
}
