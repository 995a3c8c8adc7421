"""An hour's recording: whether memory stays flat in the browser and on the server.

It takes as long as it records; RITORNEL_RECORD_MIN shortens it.
"""

import os
import statistics
import time
from collections.abc import Iterator
from pathlib import Path

from bench.web import signed_in_page
from tests.browser.base import Program, stop_everything

Line = tuple[str, str, str]
MINUTES = float(os.environ.get("RITORNEL_RECORD_MIN", "60"))


def _resident_mb(pid: int) -> float:
    return int(Path(f"/proc/{pid}/statm").read_text().split()[1]) * os.sysconf("SC_PAGE_SIZE") / 1e6


def measure() -> Iterator[Line]:
    """Samples every twentieth of the time, after the browser has cleared up what it no longer needs."""
    own = Program()
    page = signed_in_page(own)
    page.goto(f"{own.address}/shows/orlmere/record?section=esc-s")
    page.wait_for_selector(".record[data-ready]")
    page.get_by_label("Practice microphone").check()
    page.click("#record-go:enabled")
    page.wait_for_selector('.record[data-mode="recording"]')
    tools = page.context.new_cdp_session(page)
    heaps, servers, end, number = [], [], time.monotonic() + MINUTES * 60, 0
    while time.monotonic() < end:
        page.wait_for_timeout(MINUTES * 3000)
        number += 1
        if number % 5 == 0:
            page.keyboard.press("ArrowRight")
        tools.send("HeapProfiler.collectGarbage")
        heaps.append(tools.send("Runtime.getHeapUsage")["usedSize"] / 1e6)
        servers.append(_resident_mb(own.server.pid))
        print(
            f"  {number:>3}  {heaps[-1]:6.1f} MB in the page, {servers[-1]:6.1f} MB on the server, "
            f"{page.inner_text('#take-time')}",
            flush=True,
        )
    page.click("#pause")
    minutes, seconds = page.inner_text("#take-time").split(":")[-2:]
    taken = int(minutes) + float(seconds) / 60
    page.wait_for_function(
        "() => document.querySelector('#kept-second').textContent === 'Nothing is waiting to be sent.'"
    )
    kept = next(Path(own.folder.name).glob("recordings/*/sound.s16")).stat().st_size / 96_000
    half = len(heaps) // 2
    yield f"of a take of {taken:.2f} min kept on the disk", f"{kept / 60:.2f} min", "all of it"
    yield (
        ("the page's memory, second half against first"),
        f"{statistics.median(heaps[half:]) - statistics.median(heaps[:half]):+.1f} MB",
        "flat",
    )
    yield (
        ("the server's memory, second half against first"),
        f"{statistics.median(servers[half:]) - statistics.median(servers[:half]):+.1f} MB",
        "flat",
    )
    own.stop()
    stop_everything()
