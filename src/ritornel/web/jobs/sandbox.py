"""Work on uploaded files, in a process of its own with limits of time and memory: a hostile file that makes a decoder
hang or crash cannot stop the server or the worker.
"""

import logging
import multiprocessing
import multiprocessing.forkserver
import os
import resource
import signal
import sys
import time
from collections.abc import Callable
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

import msgspec

from ritornel.core.errors import BadMedia, RitornelError

log = logging.getLogger(__name__)


class Bounds(msgspec.Struct, frozen=True):
    """The limits of such work: its time, its processor time, and its memory beyond that of the program."""

    wall_s: float = 120.0
    cpu_s: int = 60
    memory_bytes: int = 2_500_000_000


WATCH_EVERY_S = 0.2

_FORKING = multiprocessing.get_context("forkserver")
# What such work needs, imported once: a process forked from there is ready in a few hundredths of a second.
_FORKING.set_forkserver_preload(
    [
        "ritornel.core.formats.archive",
        "ritornel.core.formats.opendocument.reading",
        "ritornel.core.formats.pdf",
        "ritornel.core.render.lighter_copies",
        "ritornel.core.render.frame_analysis",
        "ritornel.core.render.filmstrips",
        "ritornel.core.sound.tempo",
        "ritornel.core.sound.waveform",
        "scipy.signal",
        __name__,
    ]
)


def make_ready() -> None:
    """Starts the process from which the others are forked, so that the first of them starts quickly."""
    multiprocessing.forkserver.ensure_running()


def _bound(bounds: Bounds) -> None:
    own = 0
    if sys.platform == "linux":
        own = int(Path("/proc/self/statm").read_text().split()[0]) * os.sysconf("SC_PAGE_SIZE")
    resource.setrlimit(resource.RLIMIT_AS, (own + bounds.memory_bytes, own + bounds.memory_bytes))
    # What the process has computed before counts too: it is forked, and has hardly.
    resource.setrlimit(resource.RLIMIT_CPU, (bounds.cpu_s, bounds.cpu_s + 1))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


def _work(answers: Connection, bounds: Bounds, work: Callable[..., Any], given: tuple[Any, ...]) -> None:
    _bound(bounds)
    try:
        answers.send((True, work(*given)))
    except Exception as error:
        answers.send((False, error))


def run_confined(
    work: Callable[..., Any], *given: Any, what: str, bounds: Bounds = Bounds(), watch: Callable[[], None] | None = None
) -> Any:
    """What `work(*given)` returns or raises.

    `work` is a function of a module, and its arguments and result can be pickled. `watch` is called a few times a
    second meanwhile; an error of it ends the work. Raises BadMedia, naming the file `what`, where the work takes too
    long, needs too much memory, or crashes.
    """
    receiving, sending = _FORKING.Pipe(duplex=False)
    child = _FORKING.Process(target=_work, args=(sending, bounds, work, given), daemon=True)
    child.start()
    sending.close()
    try:
        until = time.monotonic() + bounds.wall_s
        while not receiving.poll(WATCH_EVERY_S if watch is not None else bounds.wall_s):
            if watch is not None and time.monotonic() < until:
                watch()
                continue
            raise BadMedia(
                f"“{what}” was given up: reading it took longer than {bounds.wall_s:.0f} s. Nothing was added."
            )
        done, outcome = receiving.recv()
    except EOFError as error:
        child.join()
        if child.exitcode in (-signal.SIGXCPU, -signal.SIGKILL):
            raise BadMedia(
                f"“{what}” was given up: reading it takes more than {bounds.cpu_s} s of computing. Nothing was added."
            ) from error
        raise BadMedia(f"“{what}” cannot be read: its reader stopped in the middle. Nothing was added.") from error
    finally:
        receiving.close()
        child.kill()
        child.join()
        child.close()
    if done:
        return outcome
    if not isinstance(outcome, RitornelError | OSError | MemoryError):
        # A decoder that a file has brought out of step: what it says is for the log, and the file is what is wrong for
        # its maker.
        log.error("%s failed on “%s”", getattr(work, "__name__", work), what, exc_info=outcome)
        raise BadMedia(f"“{what}” is damaged, or of a kind that cannot be read. Nothing was added.") from outcome
    if isinstance(outcome, MemoryError):
        raise BadMedia(
            f"“{what}” needs more than {bounds.memory_bytes / 1e9:.1f} GB of memory to be read. Nothing was added."
        ) from outcome
    raise outcome
