import recording


async def sleep(_):
    recording.wait()


sleep_ms = sleep


def run(coroutine):
    try:
        while True:
            coroutine.send(None)
    except StopIteration:
        pass
