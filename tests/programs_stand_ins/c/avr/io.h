#pragma once
#include "recording.h"
// A pin is driven once its direction is out and its level or its timer's compare was set; looked at whenever the program waits, and at the
// end.
#define REGISTERS(X) X(B) X(C) X(D)
#define DECLARE(P) static volatile uint8_t DDR##P, PORT##P, PIN##P;
REGISTERS(DECLARE)
static volatile uint8_t TCCR0A, TCCR0B, TCCR1A, TCCR1B, TCCR2A, TCCR2B, OCR0A, OCR0B, OCR1A, OCR1B, OCR2A, OCR2B;
enum { PB0, PB1, PB2, PB3, PB4, PB5, PB6, PB7 };
enum { PD0, PD1, PD2, PD3, PD4, PD5, PD6, PD7 };
enum { COM0A1 = 7, COM0B1 = 5, COM2B1 = 5, WGM00 = 0, WGM01 = 1, WGM20 = 0, WGM21 = 1, CS00 = 0, CS01 = 1, CS22 = 2 };
#define _BV(b) (1 << (b))
static void look(void) {
  static uint8_t seen[3];
  uint8_t now[3] = {(uint8_t)(DDRB & PORTB), (uint8_t)(DDRC & PORTC), (uint8_t)(DDRD & PORTD)};
#ifdef __AVR_ATtiny85__
  if (TCCR0A & (1 << COM0A1)) now[0] |= 1;
#else
  if (TCCR0A & (1 << COM0A1)) now[2] |= 1 << 6;
  if (TCCR0A & (1 << COM0B1)) now[2] |= 1 << 5;
  if (TCCR2A & (1 << COM2B1)) now[2] |= 1 << 3;
#endif
  for (int p = 0; p < 3; ++p)
    for (int b = 0; b < 8; ++b)
      if ((now[p] & ~seen[p]) >> b & 1) printf("drives P%c%d\n", 'B' + p, b);
  for (int p = 0; p < 3; ++p) seen[p] |= now[p];
}
static void over(int s) {
  (void)s;
  look();
  fflush(stdout);
  _exit(0);
}
__attribute__((constructor)) static void begin(void) {
  signal(SIGALRM, over);
  alarm(1);
}
