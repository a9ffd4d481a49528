#! bench darlington-sbc
#! pin J8-12 output pwm
#! quiet
import sys, signal
import RPi.GPIO as GPIO
from time import sleep

PIN_GATE = 12
FREQ = 150
gate = None

def stop(signum=None, frame=None):
    if gate:
        gate.stop()
    GPIO.cleanup()
    sys.exit(0)

def main():
    global gate
    GPIO.setwarnings(False)
    GPIO.setmode(GPIO.BOARD)
    GPIO.setup(PIN_GATE, GPIO.OUT)
    gate = GPIO.PWM(PIN_GATE, FREQ)
    gate.start(0)
    signal.signal(signal.SIGINT, stop)
    try:
        while True:
            for dc in list(range(0, 101, 5)) + list(range(100, -1, -5)):
                gate.ChangeDutyCycle(dc)
                sleep(0.1)
    finally:
        stop()

if __name__ == '__main__':
    main()
