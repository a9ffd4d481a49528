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
import utime


class Side:
    def __init__(self, pwm, a, b):
        self.pwm = PWM(Pin(pwm))
        self.pwm.freq(20000)
        self.a = Pin(a, Pin.OUT)
        self.b = Pin(b, Pin.OUT)

    def run(self, share):
        self.a.value(share > 0)
        self.b.value(share < 0)
        self.pwm.duty_u16(int(abs(share) * 65535))


standby = Pin(5, Pin.OUT)
left = Side(2, 3, 4)
right = Side(pwm=6, a=7, b=8)
standby.on()
while True:
    for share in (0.5, -0.5, 0):
        left.run(share)
        right.run(-share)
        utime.sleep(1)
    standby.off()
    utime.sleep_ms(200)
    standby.on()
