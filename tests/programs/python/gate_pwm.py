#! bench darlington-sbc
#! pin J8-12 output pwm
#! quiet
import RPi.GPIO as GPIO
import time

GATE = 18  # by the chip; position 12


class Gate:
    def __init__(self, pin, frequency=100):
        GPIO.setup(pin, GPIO.OUT)
        self.pwm = GPIO.PWM(pin, frequency)
        self.pwm.start(0)

    def open(self, share):
        self.pwm.ChangeDutyCycle(share)

    def close(self):
        self.pwm.ChangeDutyCycle(0)
        self.pwm.stop()


GPIO.setmode(GPIO.BCM)
gate = Gate(GATE)
try:
    while True:
        for share in range(0, 101, 10):
            gate.open(share)
            time.sleep(0.2)
        gate.open(0)
except KeyboardInterrupt:
    gate.close()
    GPIO.cleanup()
