import time
import RPi.GPIO as GPIO
from pins import GATE


class Gate:
    STATES = ["1000", "0100", "0010", "0001"]

    def __init__(self, coils):
        self.coils = list(coils)
        self.at = 0
        for c in self.coils:
            GPIO.setup(c, GPIO.OUT)

    def turn(self, turns):
        way = 1 if turns > 0 else -1
        for _ in range(int(abs(turns) * GATE["steps"])):
            self.at = (self.at + way) % len(self.STATES)
            for k, c in enumerate(self.coils):
                GPIO.output(c, int(self.STATES[self.at][k]))
            time.sleep(0.002)
