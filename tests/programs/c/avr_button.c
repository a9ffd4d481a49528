//! bench button
//! pin D5 output pwm
//! pin D2 pull-up read
//! quiet
#include <avr/io.h>
int main(void) {
  DDRD |= (1 << PD5);
  DDRD &= ~(1 << PD2);
  PORTD |= (1 << PD2);
  TCCR0A = (1 << COM0B1) | (1 << WGM01) | (1 << WGM00);
  TCCR0B = (1 << CS01);
  while (1) {
    if (!(PIND & (1 << PD2)))
      OCR0B = 200;
    else
      OCR0B = 0;
  }
}
