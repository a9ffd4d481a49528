#! bench step-dir-8825
#! pin GP2 output write
#! pin GP3 output write
#! says program-step-timing
from machine import Pin
import time
s = Pin(2, Pin.OUT)
d = Pin(3, Pin.OUT)
d.value(0)
d.value(1)
while True:
    s.value(1)
    time.sleep_us(50)
    s.value(0)
    time.sleep_us(50)
