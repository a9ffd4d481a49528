#! bench step-dir-8825
#! pin GP2 output write
#! pin GP3 output write
#! quiet
import machine
from time import sleep_us, sleep_ms
STEP = machine.Pin(2, machine.Pin.OUT, value=0)
DIR = machine.Pin(3, machine.Pin.OUT)


def carriage(steps):
    DIR(1 if steps > 0 else 0)
    for _ in range(abs(steps)):
        STEP(1)
        sleep_us(10)
        STEP(0)
        sleep_ms(3)


while True:
    carriage(200)
    carriage(-200)
