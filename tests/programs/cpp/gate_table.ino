//! bench array
//! pin D8 output write
//! pin D9 output write
//! pin D10 output write
//! pin D11 output write
//! quiet
const uint8_t coil[4] PROGMEM = {8, 9, 10, 11};
const uint8_t table[8] = {0b0001, 0b0011, 0b0010, 0b0110, 0b0100, 0b1100, 0b1000, 0b1001};
int8_t at = 0;
void put(uint8_t bits) {
  for (uint8_t k = 0; k < 4; k++) digitalWrite(pgm_read_byte(&coil[k]), bitRead(bits, k));
}
void turn(int steps) {
  int8_t way = steps < 0 ? -1 : 1;
  for (int n = abs(steps); n > 0; --n) {
    at = (at + way + 8) % 8;
    put(table[at]);
    delayMicroseconds(1500);
  }
  put(0);
}
void setup() { for (byte k = 0; k < 4; ++k) pinMode(pgm_read_byte(coil + k), OUTPUT); }
void loop() { turn(512); delay(1000); turn(-512); delay(1000); }
