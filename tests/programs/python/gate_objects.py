#! bench darlington-sbc
#! pin J8-12 output pwm
#! quiet
from gpiozero import PWMOutputDevice
from time import sleep

gate = PWMOutputDevice("GPIO18", frequency=200)
while True:
    gate.value = 0.6
    sleep(2)
    gate.off()
    sleep(2)
