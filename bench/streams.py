"""A thousand editors and two thousand watchers who listen to one server: what that costs while nothing changes, and how
quick the rest stays.
"""

import asyncio
import json
import os
import statistics
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from unittest import mock

from bench.web import opening, signed_in_page
from tests.browser.base import Program, stop_everything

Line = tuple[str, str, str]
PEOPLE, WINDOWS, WATCHERS = 100, 10, 2000
IDLE_S = 20

MADE = f"""
import json
from django.contrib.auth.models import User
from django.test import Client
from ritornel.core.document.decoding import to_json
from ritornel.web.releases.models import Release
from ritornel.web.shows.blank import blank_show
from ritornel.web.shows.services import Show, create_rows
lines = []
for number in range({PEOPLE}):
    person = User.objects.create(username=f"winder-{{number}}")
    row = Show(id=f"watch-{{number}}", owner=person)
    create_rows(row, blank_show(row.id, f"The watch of winder {{number}}"))
    release = Release.objects.create(show=row)
    release.editions.create(number=1, document=to_json(blank_show(row.id, row.id)), title=row.id, length_ms=0, slide_count=1)
    client = Client()
    client.force_login(person)
    lines.append([row.id, client.cookies["sessionid"].value, release.address])
print(json.dumps(lines))
"""


async def _listen(port: int, path: str, cookie: str, opened: asyncio.Semaphore) -> None:
    reader, writer = await asyncio.open_connection("127.0.0.1", port)
    writer.write(
        f"GET {path} HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nCookie: sessionid={cookie}\r\nAccept: "
        "text/event-stream\r\n\r\n".encode()
    )
    status = (await reader.readline()).split()[1:2]
    if status != [b"200"]:
        raise RuntimeError(f"{path} answered {status}")
    opened.release()
    while await reader.read(4096):
        pass


def _cpu_s(pid: int) -> float:
    """How long a process has kept a core busy."""
    fields = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


async def _open_all(port: int, lines: list[list[str]], over: asyncio.Event, ready: asyncio.Event) -> None:
    opened = asyncio.Semaphore(0)
    places = [
        (f"/shows/{show}/events?window=window-{window}", cookie)
        for show, cookie, _ in lines
        for window in range(WINDOWS)
    ]
    places += [(f"/s/{lines[number % PEOPLE][2]}/news", "") for number in range(WATCHERS)]
    tasks = []
    for path, cookie in places:
        tasks.append(asyncio.create_task(_listen(port, path, cookie, opened)))
        # As people come: one after the other, at most fifty on their way.
        if len(tasks) > 50:
            await opened.acquire()
    for _ in range(50):
        await opened.acquire()
    ready.set()
    await over.wait()
    for task in tasks:
        task.cancel()


def measure() -> Iterator[Line]:
    wide = {"RITORNEL_STREAMS_ADDRESS": "100000", "RITORNEL_STREAMS_RELEASE": "100000"}
    with mock.patch.dict(os.environ, wide):
        program = Program()
    try:
        lines = json.loads(program.manage(MADE))
        page = signed_in_page(program)
        address = program.address + "/shows/orlmere/"
        alone = statistics.median(opening(page, address, 7))

        def told() -> tuple[float, float, float]:
            """Sign-in's page and Compose in ms, and how much of a core the server takes while nothing changes."""
            before = _cpu_s(program.server.pid)
            time.sleep(IDLE_S)
            busy = (_cpu_s(program.server.pid) - before) / IDLE_S
            began = time.perf_counter()
            page.context.request.get(program.address + "/sign-in/")
            return (time.perf_counter() - began) * 1000, statistics.median(opening(page, address, 7)), busy

        loop = asyncio.new_event_loop()
        over, ready = asyncio.Event(), asyncio.Event()
        listening = threading.Thread(
            target=lambda: loop.run_until_complete(_open_all(program.port, lines, over, ready))
        )
        began = time.perf_counter()
        listening.start()
        while not ready.is_set():
            time.sleep(0.1)
            if not listening.is_alive():
                raise RuntimeError("The streams could not be opened.")
        yield (
            (f"{PEOPLE * WINDOWS} editors and {WATCHERS} watchers have come after"),
            f"{time.perf_counter() - began:.0f} s",
            "-",
        )
        signing, compose, busy = told()
        rss_mb = (
            int(Path(f"/proc/{program.server.pid}/statm").read_text().split()[1]) * os.sysconf("SC_PAGE_SIZE") / 1e6
        )
        files = len(list(Path(f"/proc/{program.server.pid}/fd").iterdir()))
        yield "of a core, while nothing changes", f"{busy:.0%}", "30%"
        yield "memory of the server; its open files", f"{rss_mb:.0f} MB; {files}", "-"
        yield "the page of sign-in meanwhile", f"{signing:.0f} ms", "1 000 ms"
        yield "Compose on the demo meanwhile, median; alone", f"{compose:.0f} ms; {alone:.0f} ms", "1 000 ms"
        loop.call_soon_threadsafe(over.set)
        listening.join()
    finally:
        program.stop()
        stop_everything()
