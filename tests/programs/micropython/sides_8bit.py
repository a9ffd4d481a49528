#! bench drv8833
#! pin IO16 output pwm
#! pin IO17 output pwm
#! pin IO18 output pwm
#! pin IO19 output pwm
#! says program-duty-scale program-duty-scale program-duty-scale program-duty-scale
# Eight bits into a call that counts sixteen.
from machine import Pin, PWM
from time import sleep
pins = (16, 17, 18, 19)
outs = [PWM(Pin(p), freq=1000) for p in pins]
while True:
    outs[0].duty_u16(255); outs[1].duty_u16(0); outs[2].duty_u16(255); outs[3].duty_u16(0)
    sleep(1)
    outs[0].duty_u16(0); outs[1].duty_u16(255); outs[2].duty_u16(0); outs[3].duty_u16(255)
    sleep(1)
