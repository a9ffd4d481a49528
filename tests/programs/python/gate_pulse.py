#! bench darlington-sbc
#! pin J8-32 output pwm
#! says program-pin-slip
# position and chip number mixed up: 12 on the header is meant
from gpiozero import PWMLED
from signal import pause
gate = PWMLED(12)
gate.pulse(fade_in_time=2, fade_out_time=2)
pause()
