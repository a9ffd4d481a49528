"""run_recorded.py PROGRAM: runs it with the stand-ins in the place of the hardware."""
import builtins
import os
import runpy
import sys

import recording

builtins.input = lambda *_: recording.wait() or "y"
program = sys.argv[1]
sys.path.insert(0, os.path.dirname(program))
try:
    runpy.run_path(program, run_name="__main__")
except KeyboardInterrupt:
    pass
