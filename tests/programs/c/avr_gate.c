//! bench array
//! pin D8 output write
//! pin D9 output write
//! pin D10 output write
//! pin D11 output write
//! quiet
#include <avr/io.h>
#include <util/delay.h>
static const uint8_t seq[] = {0x1, 0x3, 0x2, 0x6, 0x4, 0xC, 0x8, 0x9};
int main(void) {
  DDRB |= 0x0F;
  uint8_t i = 0;
  while (1) {
    PORTB = (PORTB & 0xF0) | seq[i & 7];
    i++;
    _delay_ms(3);
  }
  return 0;
}
