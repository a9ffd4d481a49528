#! bench darlington-sbc
#! pin J8-12 output pwm
#! says program-duty-scale
import RPi.GPIO as GPIO
import time
GPIO.setmode(GPIO.BOARD)
GPIO.setup(12, GPIO.OUT)
p = GPIO.PWM(12, 200)
p.start(0.8)
time.sleep(5)
p.stop()
GPIO.cleanup()
