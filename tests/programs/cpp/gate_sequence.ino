//! bench array
//! pin D8 output write
//! pin D9 output write
//! pin D10 output write
//! pin D11 output write
//! quiet
// Half steps from a table, by the program itself.
const byte coil[4] = {8, 9, 10, 11};
const byte seq[8] = {B0001, B0011, B0010, B0110, B0100, B1100, B1000, B1001};
int at = 0;

void stepOnce(int way) {
  at = (at + way + 8) % 8;
  for (byte i = 0; i < 4; i++) digitalWrite(coil[i], bitRead(seq[at], i));
  delay(3);
}

void setup() {
  for (byte i = 0; i < 4; i++) pinMode(coil[i], OUTPUT);
}

void loop() {
  for (int n = 0; n < 1024; n++) stepOnce(1);
  for (int n = 0; n < 1024; n++) stepOnce(-1);
}
