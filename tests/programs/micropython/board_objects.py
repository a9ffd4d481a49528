#! bench step-dir-8825
#! pin GP2 output write
#! pin GP3 output read write
#! quiet
import board
import digitalio
import time

step = digitalio.DigitalInOut(board.GP2)
step.direction = digitalio.Direction.OUTPUT
direction = digitalio.DigitalInOut(board.GP3)
direction.direction = digitalio.Direction.OUTPUT

while True:
    direction.value = not direction.value
    for _ in range(100):
        step.value = True
        time.sleep(0.001)
        step.value = False
        time.sleep(0.003)
