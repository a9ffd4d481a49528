//! bench pumps-relays
//! pin D7 output write
//! pin D8 output write
//! quiet
// Relays that are on when low, one letter a command.
namespace board {
constexpr uint8_t kFirst{7};
constexpr uint8_t kSecond{kFirst + 1};
}
#define ON LOW
#define OFF HIGH
void setup() {
  digitalWrite(board::kFirst, OFF);
  digitalWrite(board::kSecond, OFF);
  pinMode(board::kFirst, OUTPUT);
  pinMode(board::kSecond, OUTPUT);
  Serial.begin(9600);
}
void loop() {
  if (!Serial.available()) return;
  const char c = Serial.read();
  switch (tolower(c)) {
    case 'a': digitalWrite(board::kFirst, isupper(c) ? ON : OFF); break;
    case 'b': digitalWrite(board::kSecond, isupper(c) ? ON : OFF); break;
    default: Serial.println(F("A a B b"));
  }
}
