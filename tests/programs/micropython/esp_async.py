#! bench bridge-esp32
#! pin IO25 output pwm
#! pin IO26 output write
#! pin IO27 output write
#! quiet
import machine, time
in1 = machine.Pin(26, machine.Pin.OUT)
in2 = machine.Pin(27, machine.Pin.OUT)
ena = machine.PWM(machine.Pin(25), freq=5000, duty=0)
def drive(d):
    in1.value(1 if d > 0 else 0)
    in2.value(1 if d < 0 else 0)
    ena.duty(abs(d))
async def wave():
    import uasyncio
    while True:
        drive(700)
        await uasyncio.sleep(1)
        drive(-700)
        await uasyncio.sleep(1)
        drive(0)
        await uasyncio.sleep(1)
import uasyncio
uasyncio.run(wave())
