#! bench array-sbc
#! pin J8-11 output write
#! pin J8-13 output write
#! pin J8-15 output write
#! pin J8-16 output write
#! says program-left-on
import RPi.GPIO as gpio
import time
gpio.setmode(gpio.BCM)
step_pins = [17,27,22,23]
for pin in step_pins:
  gpio.setup(pin,gpio.OUT)
  gpio.output(pin, False)
seq = [[1,0,0,1],[1,0,0,0],[1,1,0,0],[0,1,0,0],[0,1,1,0],[0,0,1,0],[0,0,1,1],[0,0,0,1]]
step_count = len(seq)
step_dir = 1
counter = 0
while counter < 2000:
  for i in range(0, 4):
    xpin = step_pins[i]
    if seq[counter % step_count][i] != 0:
      gpio.output(xpin, True)
    else:
      gpio.output(xpin, False)
  counter += step_dir
  time.sleep(10/float(1000))
