#! bench array-sbc
#! pin J8-11 output write
#! pin J8-13 output write
#! pin J8-15 output write
#! pin J8-16 output write
#! quiet
import RPi.GPIO as GPIO
import time

COILS = [11, 13, 15, 16]
WAVE = [
    (1, 0, 0, 0),
    (0, 1, 0, 0),
    (0, 0, 1, 0),
    (0, 0, 0, 1),
]


def set_up():
    GPIO.setmode(GPIO.BOARD)
    for pin in COILS:
        GPIO.setup(pin, GPIO.OUT, initial=GPIO.LOW)


def turn(steps, wait=0.003):
    for n in range(steps):
        for pin, level in zip(COILS, WAVE[n % 4]):
            GPIO.output(pin, level)
        time.sleep(wait)


if __name__ == "__main__":
    set_up()
    try:
        turn(512)
        time.sleep(1)
    finally:
        GPIO.cleanup()
