// Framework C++ that records. setup() runs once, loop() some times; what waits forever is stopped.
#pragma once
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <initializer_list>
#include <set>
#include <string>

typedef uint8_t byte;
typedef bool boolean;
enum { LOW = 0, HIGH = 1, INPUT = 0, OUTPUT = 1, INPUT_PULLUP = 2, RISING = 3, FALLING = 2, CHANGE = 1 };
// Numbers that a pin named so can not be mistaken for.
enum { A0 = 100, A1, A2, A3, A4, A5, LED_BUILTIN = 13 };
#define B0001 1
#define B0010 2
#define B0011 3
#define B0100 4
#define B0110 6
#define B1000 8
#define B1001 9
#define B1100 12
#define PROGMEM
#define F(t) t
#define pgm_read_byte(p) (*(p))
#define bitRead(v, b) (((v) >> (b)) & 1)
#define constrain(v, a, b) ((v) < (a) ? (a) : (v) > (b) ? (b) : (v))
#define digitalPinToInterrupt(p) (p)

inline void drives(int pin) {
  static std::set<int> said;
  if (!said.insert(pin).second) return;
  if (pin >= 100)
    std::printf("drives A%d\n", pin - 100);
  else
    std::printf("drives %d\n", pin);
}
inline long& waits() {
  static long n = 0;
  return n;
}
inline void delay(unsigned long) {
  if (++waits() > 20000) std::exit(0);
}
inline void delayMicroseconds(unsigned) {
  delay(0);
}
inline unsigned long millis() {
  return static_cast<unsigned long>(waits()) * 10;
}
inline void pinMode(int, int) {}
inline void digitalWrite(int pin, int) {
  drives(pin);
}
inline int digitalRead(int) {
  return waits() % 7 < 3;
}
inline int analogRead(int) {
  return 512;
}
inline void analogWrite(int pin, int) {
  drives(pin);
}
inline void tone(int pin, unsigned, unsigned long = 0) {
  drives(pin);
}
inline void attachInterrupt(int, void (*f)(), int) {
  f();
}
inline int& channelPin(int channel) {
  static int pins[16];
  return pins[channel & 15];
}
inline void ledcSetup(int, double, int) {}
inline void ledcAttachPin(int pin, int channel) {
  channelPin(channel) = pin;
}
inline bool ledcAttach(int, unsigned, int) {
  return true;
}
#ifdef LEDC_BY_PIN
inline void ledcWrite(int pin, unsigned) {
  drives(pin);
}
#else
inline void ledcWrite(int channel, unsigned) {
  drives(channelPin(channel));
}
#endif
struct SerialPort {
  void begin(long) {}
  template <class T>
  void println(T) {}
  int available() { return 1; }
  char read() { return "fbsaAbB"[waits()++ % 7]; }
};
inline SerialPort Serial;
void setup();
void loop();
