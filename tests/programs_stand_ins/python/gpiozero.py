from recording import drives


class OutputDevice:
    def __init__(self, pin, active_high=True, initial_value=False):
        self.pin = pin

    def on(self):
        drives(self.pin)

    off = toggle = on

    @property
    def value(self):
        return 0

    @value.setter
    def value(self, v):
        drives(self.pin)


LED = DigitalOutputDevice = OutputDevice


class PWMOutputDevice(OutputDevice):
    def __init__(self, pin, active_high=True, initial_value=0, frequency=100):
        super().__init__(pin)

    def pulse(self, fade_in_time=1, fade_out_time=1):
        drives(self.pin)


PWMLED = PWMOutputDevice
