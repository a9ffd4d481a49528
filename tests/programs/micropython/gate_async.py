#! bench bridge-esp32
#! pin IO25 output pwm
#! pin IO26 output write
#! pin IO27 output write
#! quiet
import uasyncio as asyncio
from machine import Pin, PWM

class Gate:
    TOP = 1023
    def __init__(self, en, in1, in2, freq=1000):
        self._speed = PWM(Pin(en), freq=freq, duty=0)
        self._ways = tuple(Pin(p, Pin.OUT, value=0) for p in (in1, in2))
    def _set(self, a, b, duty):
        for pin, level in zip(self._ways, (a, b)):
            pin.value(level)
        self._speed.duty(int(duty * self.TOP))
    def open(self, share): self._set(1, 0, share)
    def close(self, share): self._set(0, 1, share)
    def stop(self): self._set(0, 0, 0)

async def ramp(action, most):
    for k in range(0, 11):
        action(most * k / 10)
        await asyncio.sleep_ms(50)

async def main():
    gate = Gate(en=25, in1=26, in2=27)
    while True:
        await ramp(gate.open, 0.8)
        await asyncio.sleep(3)
        gate.stop()
        await ramp(gate.close, 0.8)
        await asyncio.sleep(3)
        gate.stop()

asyncio.run(main())
