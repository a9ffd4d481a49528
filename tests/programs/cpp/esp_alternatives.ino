//! bench bridge-esp32
//! pin IO25 output pwm
//! pin IO26 output write
//! pin IO27 output write
//! quiet
// One sketch for two boards: only this board's branch counts.
#if defined(ESP32)
  #define EN_PIN 25
  #define A_PIN 26
  #define B_PIN 27
#elif defined(ARDUINO_ARCH_AVR)
  #define EN_PIN 9
  #define A_PIN 8
  #define B_PIN 7
#else
  #error unknown board
#endif
void setup() {
  for (int pin : {EN_PIN, A_PIN, B_PIN}) pinMode(pin, OUTPUT);
}
void loop() {
  static bool way = false;
  way = !way;
  digitalWrite(A_PIN, way);
  digitalWrite(B_PIN, !way);
  analogWrite(EN_PIN, 128);
  delay(2000);
}
