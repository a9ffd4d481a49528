#! bench step-dir-tmc2208
#! pin J41-11 output write
#! pin J41-13 output write
#! quiet
import Jetson.GPIO as GPIO
import time
STEP, DIRECTION = 11, 13
GPIO.setmode(GPIO.BOARD)
GPIO.setup([STEP, DIRECTION], GPIO.OUT, initial=GPIO.LOW)
try:
    for way in (GPIO.HIGH, GPIO.LOW):
        GPIO.output(DIRECTION, way)
        for _ in range(200):
            GPIO.output(STEP, GPIO.HIGH)
            time.sleep(0.002)
            GPIO.output(STEP, GPIO.LOW)
            time.sleep(0.002)
finally:
    GPIO.cleanup()
