from recording import drives


class Direction:
    INPUT, OUTPUT = 0, 1


class Pull:
    UP, DOWN = 1, 2


class DigitalInOut:
    def __init__(self, pin):
        self.pin = pin
        self.direction = Direction.INPUT
        self._value = False

    @property
    def value(self):
        return self._value

    @value.setter
    def value(self, v):
        self._value = v
        drives(self.pin)
