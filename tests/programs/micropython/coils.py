#! bench stepper-tb6612
#! pin GP2 output write
#! pin GP3 output write
#! pin GP4 output write
#! pin GP5 output write
#! quiet
from machine import Pin
import time
coils = [Pin(n, Pin.OUT) for n in range(2, 6)]
states = [0b1010, 0b0110, 0b0101, 0b1001]
n = 0
while True:
    s = states[n % 4]
    for k in range(4):
        coils[k].value((s >> (3 - k)) & 1)
    n += 1
    time.sleep_ms(5)
