from recording import drives


class Pin:
    IN, OUT, PULL_UP, PULL_DOWN = 0, 1, 1, 2

    def __init__(self, pin, mode=-1, pull=-1, value=None):
        self.pin = pin
        if value is not None:
            self.value(value)

    def value(self, v=None):
        if v is None:
            return 0
        drives(self.pin)

    __call__ = value

    def on(self):
        drives(self.pin)

    off = high = low = toggle = on


class PWM:
    def __init__(self, pin, freq=None, duty_u16=None, duty=None):
        self.pin = pin.pin

    def freq(self, hertz=None):
        pass

    def duty_u16(self, duty):
        drives(self.pin)

    duty = duty_ns = duty_u16


class Timer:
    PERIODIC, ONE_SHOT = 1, 0

    def init(self, freq=None, period=None, mode=PERIODIC, callback=None):
        callback(self)
