from recording import wait as sleep, wait as sleep_ms, wait as sleep_us
