#! bench array-sbc
#! pin J8-11 output write
#! pin J8-13 output write
#! pin J8-15 output write
#! pin J8-16 output write
#! quiet
# The pins come from a module of its own, the work from another.
import atexit
import RPi.GPIO as GPIO
from gate import Gate
import pins

GPIO.setmode(GPIO.BCM)
atexit.register(GPIO.cleanup)
gate = Gate(pins.GATE["coils"])
gate.turn(0.25)
gate.turn(-0.25)
