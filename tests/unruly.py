"""What files might make their reader do. A module without Django, as the reader's process is one."""

import os
import signal
import time

from ritornel.core.errors import BadValue


def doubled(number: int) -> int:
    return number * 2


def whose_process() -> int:
    return os.getpid()


def stuck() -> None:
    time.sleep(60)


def greedy() -> int:
    return len(bytearray(400_000_000))


def fallen() -> None:
    os.kill(os.getpid(), signal.SIGSEGV)


def refusing() -> None:
    raise BadValue("The escape wheel has 31 teeth; it takes 30.", "teeth")
