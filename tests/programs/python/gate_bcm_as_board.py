#! bench array-sbc
#! pin J8-23 output write
#! pin J8-33 output write
#! pin J8-10 output write
#! pin J8-36 output write
#! says program-numbering
# Positions on the header, counted as the chip's numbers.
import RPi.GPIO as GPIO
from time import sleep
GPIO.setmode(GPIO.BCM)
pins = [11, 13, 15, 16]
seq = [[1, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, 0], [0, 0, 0, 1]]
GPIO.setup(pins, GPIO.OUT)
try:
    for i in range(400):
        for k in range(4):
            GPIO.output(pins[k], seq[i % 4][k])
        sleep(0.004)
finally:
    GPIO.cleanup()
