#! bench darlington-sbc
#! pin J8-12 output write
#! says program-left-on program-goal-unserved
import time

import RPi.GPIO as GPIO

GPIO.setmode(GPIO.BOARD)
GPIO.setup(12, GPIO.OUT)
GPIO.output(12, GPIO.LOW)
while True:
    answer = input("open? ")
    GPIO.output(12, answer == "y")
    time.sleep(1)
