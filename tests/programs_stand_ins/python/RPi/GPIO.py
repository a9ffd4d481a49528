from recording import drives

BOARD, BCM, OUT, IN, HIGH, LOW = "BOARD", "BCM", 0, 1, 1, 0
PUD_UP, PUD_DOWN, PUD_OFF = 22, 21, 20
_mode = None


def setmode(mode):
    global _mode
    _mode = mode


def setwarnings(_):
    pass


def _all(pins):
    return pins if isinstance(pins, (list, tuple)) else [pins]


def setup(pins, mode, pull_up_down=PUD_OFF, initial=None):
    assert _mode, "a mode is needed"


def output(pins, level):
    for p in _all(pins):
        drives(p)


def input(pin):
    return 0


def cleanup(pins=None):
    pass


class PWM:
    def __init__(self, pin, frequency):
        self.pin = pin

    def start(self, duty):
        assert 0 <= duty <= 100
        drives(self.pin)

    def ChangeDutyCycle(self, duty):
        assert 0 <= duty <= 100
        drives(self.pin)

    def ChangeFrequency(self, frequency):
        pass

    def stop(self):
        pass
