def __getattr__(name):
    return name
