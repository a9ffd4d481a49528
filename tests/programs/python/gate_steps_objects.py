#! bench array-sbc
#! pin J8-11 output write
#! pin J8-13 output write
#! pin J8-15 output write
#! pin J8-16 output write
#! quiet
from gpiozero import OutputDevice
from time import sleep

coils = [OutputDevice(n) for n in (17, 27, 22, 23)]
wave = {0: (1, 0, 0, 0), 1: (0, 1, 0, 0), 2: (0, 0, 1, 0), 3: (0, 0, 0, 1)}

for n in range(2048):
    for coil, level in zip(coils, wave[n % 4]):
        coil.value = level
    sleep(0.003)
for coil in coils:
    coil.off()
