#! bench step-dir-8825
#! pin GP2 output write
#! pin GP4 output write
#! says program-pin-slip
from machine import Pin, Timer
step = Pin(2, Pin.OUT)
direction = Pin(4, Pin.OUT)
def tick(t):
    step.toggle()
direction.value(1)
direction.value(0)
t = Timer()
t.init(freq=200, mode=Timer.PERIODIC, callback=tick)
