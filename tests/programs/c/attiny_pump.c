//! bench low-side-attiny
//! pin PB0 output pwm
//! quiet
#include <avr/io.h>
int main(void) {
  DDRB = 1 << PB0;
  TCCR0A = _BV(COM0A1) | _BV(WGM01) | _BV(WGM00);
  TCCR0B = _BV(CS00);
  for (uint8_t d = 0;; d++) OCR0A = d;
}
