//! bench button
//! pin D5 output pwm
//! pin D2 read
//! says program-read-floats
int button = 2;
int pump = 5;
void setup() { pinMode(pump, OUTPUT); }
void loop() {
  if (digitalRead(button) == LOW) {
    analogWrite(pump, 255);
  } else {
    analogWrite(pump, 0);
  }
}
