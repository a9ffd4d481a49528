#! bench step-dir-8825
#! pin GP2 output write
#! pin GP3 output write
#! says program-pins-exchanged
from machine import Pin
import time
DIR_PIN = 2
STEP_PIN = 3
direction = Pin(DIR_PIN, Pin.OUT)
step = Pin(STEP_PIN, Pin.OUT)
direction.on()
direction.off()
for _ in range(400):
    step.on()
    time.sleep_ms(2)
    step.off()
    time.sleep_ms(2)
