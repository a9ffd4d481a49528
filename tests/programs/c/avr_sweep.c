//! bench bts7960
//! pin D5 output pwm
//! pin D6 output pwm
//! pin D7 output write
//! pin D8 output write
//! quiet
#include <avr/io.h>
#include <stdint.h>
#include <util/delay.h>
#define R_EN  7
#define L_EN  0
static inline void out_d(uint8_t bit) { DDRD |= (uint8_t)(1u << bit); }
static void pwm0(void) {
  TCCR0A |= _BV(COM0A1) | _BV(COM0B1) | _BV(WGM01) | _BV(WGM00);
  TCCR0B |= _BV(CS01);
}
void set_speed(int16_t s) {
  if (s >= 0) { OCR0A = 0; OCR0B = (uint8_t)s; }
  else { OCR0B = 0; OCR0A = (uint8_t)(-s); }
}
int main(void) {
  out_d(5); out_d(6); out_d(R_EN);
  DDRB |= (1 << L_EN);
  PORTD |= (1 << R_EN);
  PORTB |= (1 << L_EN);
  pwm0();
  int16_t v;
  while (1) {
    for (v = -200; v <= 200; v += 10) { set_speed(v); _delay_ms(30); }
    for (v = 200; v >= -200; v -= 10) { set_speed(v); _delay_ms(30); }
  }
}
