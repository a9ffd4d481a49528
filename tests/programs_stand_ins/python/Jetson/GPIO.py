from RPi.GPIO import *
