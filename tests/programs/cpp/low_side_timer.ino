//! bench low-side
//! pin D5 output pwm
//! says program-duty-scale program-goal-unserved
// Ten bits, as of another board; and it never stops.
const int pumpPin(5);
class Ramp {
  int _pin; float _now = 0, _to = 0;
public:
  explicit Ramp(int pin) : _pin{pin} { }
  void begin() { pinMode(_pin, OUTPUT); }
  void to(float share) { _to = share; }
  void tick() {
    _now += (_to - _now) * 0.1f;
    analogWrite(_pin, static_cast<int>(_now * 1023));
  }
};
Ramp pump(pumpPin);
void setup() { pump.begin(); pump.to(1.0f); }
void loop() { pump.tick(); delay(10); }
