//! bench array
//! pin D8 output write
//! pin D9 output write
//! pin D10 output write
//! pin D11 output write
//! says program-coil-order
const int c1 = 8, c2 = 9, c3 = 10, c4 = 11;
void coils(int a, int b, int c, int d) {
  digitalWrite(c1, a);
  digitalWrite(c2, b);
  digitalWrite(c3, c);
  digitalWrite(c4, d);
  delay(4);
}
void setup() {
  pinMode(c1, OUTPUT); pinMode(c2, OUTPUT); pinMode(c3, OUTPUT); pinMode(c4, OUTPUT);
}
void loop() {
  coils(1, 0, 1, 0);
  coils(0, 1, 1, 0);
  coils(0, 1, 0, 1);
  coils(1, 0, 0, 1);
}
