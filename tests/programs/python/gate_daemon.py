#! bench darlington-sbc
#! pin J8-12 output pwm
#! says program-left-on
import pigpio
import time
pi = pigpio.pi()
GATE = 18
pi.set_PWM_range(GATE, 1000)
pi.set_PWM_frequency(GATE, 500)
for level in (200, 400, 800):
    pi.set_PWM_dutycycle(GATE, level)
    time.sleep(1)
pi.stop()
