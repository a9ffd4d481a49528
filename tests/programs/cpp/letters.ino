//! bench bridge
//! pin D5 output pwm
//! pin D7 output write
//! pin D8 output write
//! pin D6 output pwm
//! pin D2 output write
//! pin D4 output write
//! quiet
/* two motors, arrays of arrays, negative speeds */
byte m[2][3] = { {5,7,8}, {6,2,4} };
enum dir { FWD, REV, HALT };
void motor(byte which, dir d, byte v = 180) {
  byte *p = m[which];
  switch (d) {
    case FWD: digitalWrite(p[1], 1); digitalWrite(p[2], 0); break;
    case REV: digitalWrite(p[1], 0); digitalWrite(p[2], 1); break;
    default: digitalWrite(p[1], 0); digitalWrite(p[2], 0); v = 0;
  }
  analogWrite(p[0], v);
}
void setup() { for (byte i=0;i<2;i++) for (byte j=0;j<3;j++) pinMode(m[i][j], OUTPUT); Serial.begin(9600); }
void loop() {
  if (Serial.available()) {
    char c = Serial.read();
    if (c == 'f') { motor(0, FWD); motor(1, FWD, 200); }
    else if (c == 'b') { motor(0, REV); motor(1, REV); }
    else { motor(0, HALT); motor(1, HALT); }
  }
}
