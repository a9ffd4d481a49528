from recording import drives


class pi:
    def set_PWM_range(self, pin, most):
        pass

    def set_PWM_frequency(self, pin, hertz):
        pass

    def set_PWM_dutycycle(self, pin, duty):
        drives(pin)

    def write(self, pin, level):
        drives(pin)

    def stop(self):
        pass
