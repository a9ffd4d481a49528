//! bench npn
//! pin D6 write
//! says program-pin-mode
#include <avr/io.h>
#include <util/delay.h>
#define PUMP PD6
int main(void) {
  while (1) {
    PORTD |= (1 << PUMP);
    _delay_ms(400);
    PORTD &= ~(1 << PUMP);
    _delay_ms(400);
  }
}
