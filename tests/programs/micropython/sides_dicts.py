#! bench tb6612
#! pin GP2 output pwm
#! pin GP3 output write
#! pin GP4 output write
#! pin GP5 output write
#! pin GP6 output pwm
#! pin GP7 output write
#! pin GP8 output write
#! quiet
from machine import Pin, PWM
from utime import sleep
PINS = dict(a=dict(pwm=2, in1=3, in2=4), b=dict(pwm=6, in1=7, in2=8), stby=5)
stby = Pin(PINS['stby'], Pin.OUT)
class Motor:
    MAX = 65535
    def __init__(self, cfg, freq=1000):
        self._p = PWM(Pin(cfg['pwm'], Pin.OUT))
        self._p.freq(freq)
        self._i = [Pin(cfg[k], Pin.OUT) for k in ('in1', 'in2')]
    def _dir(self, a, b):
        for pin, v in zip(self._i, (a, b)):
            pin.value(v)
    def forward(self, pct):
        self._dir(1, 0)
        self._p.duty_u16(int(self.MAX * pct / 100))
    def back(self, pct):
        self._dir(0, 1)
        self._p.duty_u16(self.MAX * pct // 100)
    def halt(self):
        self._dir(0, 0)
        self._p.duty_u16(0)
motors = {name: Motor(PINS[name]) for name in ('a', 'b')}
def all_do(what, *args):
    for m in motors.values():
        getattr(m, what)(*args)
stby.value(1)
for m in motors.values():
    m.forward(60)
sleep(1)
for m in motors.values():
    m.back(60)
sleep(1)
for m in motors.values():
    m.halt()
stby.value(0)
