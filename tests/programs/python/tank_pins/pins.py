GATE = {"coils": (17, 27, 22, 23), "steps": 2048}
