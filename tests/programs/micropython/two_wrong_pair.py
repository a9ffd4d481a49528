#! bench tb6612
#! pin GP2 output pwm
#! pin GP3 output write
#! pin GP4 output write
#! pin GP5 output write
#! pin GP6 output pwm
#! pin GP8 output write
#! pin GP9 output write
#! says program-pin-slip
# BIN1 is on GP7 and BIN2 on GP8; the program has 9 and 8.
from machine import Pin, PWM
import time
PINS = {"left": (2, 3, 4), "right": (6, 9, 8)}
STANDBY = Pin(5, Pin.OUT, value=1)

def build(pwm, a, b):
    p = PWM(Pin(pwm))
    p.freq(5000)
    return p, Pin(a, Pin.OUT), Pin(b, Pin.OUT)

sides = {name: build(*numbers) for name, numbers in PINS.items()}

def run(name, speed):
    p, a, b = sides[name]
    a.value(speed > 0)
    b.value(speed < 0)
    p.duty_u16(abs(speed) * 655)

for name in sides:
    run(name, 60)
    time.sleep(1)
    run(name, -60)
    time.sleep(1)
    run(name, 0)
