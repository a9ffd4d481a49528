//! bench l293d
//! pin D3 output pwm
//! pin D4 output write
//! pin D7 output write
//! quiet
#include <avr/io.h>
#include <util/delay.h>
#define PWM_DDR DDRD
#define PWM_BIT PD3
#define A_BIT PD4
#define B_BIT PD7

static void pwm_init(void) {
  PWM_DDR |= (1 << PWM_BIT);
  TCCR2A = (1 << COM2B1) | (1 << WGM21) | (1 << WGM20);
  TCCR2B = (1 << CS22);
}

static void forward(uint8_t duty) {
  PORTD |= (1 << A_BIT);
  PORTD &= ~(1 << B_BIT);
  OCR2B = duty;
}

static void reverse(uint8_t duty) {
  PORTD = (PORTD & ~_BV(A_BIT)) | _BV(B_BIT);
  OCR2B = duty;
}

int main(void) {
  DDRD |= _BV(A_BIT) | _BV(B_BIT);
  pwm_init();
  for (;;) {
    forward(200);
    _delay_ms(1000);
    reverse(200);
    _delay_ms(1000);
    OCR2B = 0;
    _delay_ms(500);
  }
}
