"""Leases: the process that works on a job holds it for some seconds and renews that; without renewal it loses the job.

Leases use the system's monotonic clock, which all processes of a machine share, so a clock that is set back, or a
machine that sleeps, ends none. The end of a holder's process is noticed at once where processes are visible.
"""

import os
import secrets
import time
from functools import cache
from pathlib import Path

LEASE_S = 30.0
"""How long a holder may be silent: a machine with much to do is slow to say that it is there."""
RENEW_S = 1.0
"""How often it says so."""


@cache
def boot_id() -> str:
    """The start of the machine that the clock counts from; a restart ends all leases."""
    try:
        return Path("/proc/sys/kernel/random/boot_id").read_text().strip()[:36]
    except OSError:
        return "this machine"


def _processes() -> str:
    """Which processes are visible: those of the same PID namespace (Linux)."""
    try:
        return str(os.stat("/proc/self/ns/pid").st_ino)
    except OSError:
        return "0"


def new_token() -> str:
    """A unique name for a holder: its process, and a random part."""
    return f"{_processes()}.{os.getpid()}.{secrets.token_hex(6)}"


def is_alive(token: str) -> bool:
    """Whether the holder's process exists, as far as that is visible from here."""
    processes, _, rest = token.partition(".")
    pid = rest.partition(".")[0]
    if processes != _processes() or not pid.isdecimal():
        return True
    try:
        os.kill(int(pid), 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True


def now_s() -> float:
    """The clock of leases."""
    return time.monotonic()
