"""Screens that follow the Lectern: how late the House in the same browser is, and two hundred Houses elsewhere."""

import asyncio
import json
import multiprocessing
import statistics
import time
from collections.abc import Iterator
from multiprocessing.connection import Connection
from urllib.parse import urlsplit

from bench.web import signed_in_page
from tests.browser.base import Program, stop_everything

Line = tuple[str, str, str]
HOUSES, PRESSES, EVERY_S = 200, 60, 0.1

HOUSE = """() => {
  window.seen = [];
  const house = document.querySelector(".house");
  new MutationObserver(() => window.seen.push(performance.timeOrigin + performance.now())).observe(house, { attributeFilter: ["data-seq"] });
}"""
PRESS = """async ([count, every]) => {
  const pressed = [];
  for (let n = 0; n < count; n += 1) {
    pressed.push(performance.timeOrigin + performance.now());
    dispatchEvent(new KeyboardEvent("keydown", { key: n % 2 ? "ArrowLeft" : "ArrowRight" }));
    await new Promise((done) => setTimeout(done, every));
  }
  return pressed;
}"""


async def _listen(address: str, heard: dict[int, list[float]], ready: asyncio.Semaphore) -> None:
    url = urlsplit(address)
    reader, writer = await asyncio.open_connection(url.hostname, url.port)
    writer.write(f"GET {url.path} HTTP/1.1\r\nHost: {url.netloc}\r\nAccept: text/event-stream\r\n\r\n".encode())
    while line := await reader.readline():
        if line.startswith(b": still"):
            ready.release()
        elif line.startswith(b"data: "):
            message = json.loads(line[6:])
            if message["kind"] == "state":
                heard.setdefault(message["seq"], []).append(time.time() * 1000)


async def _follow(address: str, pipe: Connection) -> None:
    heard: dict[int, list[float]] = {}
    ready = asyncio.Semaphore(0)
    tasks = [asyncio.create_task(_listen(address, heard, ready)) for _ in range(HOUSES)]
    for _ in range(HOUSES):
        await ready.acquire()
    pipe.send("ready")
    while not pipe.poll():
        await asyncio.sleep(0.01)
    pipe.send(heard)
    for task in tasks:
        task.cancel()


def _houses(address: str, pipe: Connection) -> None:
    asyncio.run(_follow(address, pipe))


def measure() -> Iterator[Line]:
    program = Program()
    try:
        lectern = signed_in_page(program)
        lectern.goto(program.address + "/shows/orlmere/lectern?from=who-s")
        lectern.wait_for_selector(".lectern[data-ready]")
        house = lectern.context.new_page()
        house.goto(program.address + "/shows/orlmere/house")
        house.wait_for_selector(".house[data-ready]")
        house.evaluate(HOUSE)
        pressed = lectern.evaluate(PRESS, [PRESSES, EVERY_S * 1000])
        seen = house.evaluate("window.seen")
        late = [min((at for at in seen if at >= press), default=press + 1e4) - press for press in pressed]
        figures = f"{statistics.median(late):.0f} ms; {sorted(late)[57]:.0f} ms"
        yield "the House in the same browser: shown so long after a press, median; 95 in 100", figures, "50 ms; -"

        house.close()
        run = lectern.evaluate("""async () => {
          const headers = { "X-CSRFToken": document.querySelector("meta[name=csrf]").content };
          return (await fetch("/shows/orlmere/run", { method: "POST", headers })).json();
        }""")
        mine, theirs = multiprocessing.get_context("spawn").Pipe()
        others = multiprocessing.get_context("spawn").Process(
            target=_houses, args=(run["house"]["address"] + "events", theirs)
        )
        others.start()
        assert mine.recv() == "ready"
        said: dict[int, float] = dict(
            lectern.evaluate(
                """async ([say, count, every]) => {
                  const said = [];
                  const headers = { "X-CSRFToken": document.querySelector("meta[name=csrf]").content, "Content-Type": "application/json" };
                  for (let seq = 1; seq <= count; seq += 1) {
                    said.push([seq, performance.timeOrigin + performance.now()]);
                    const body = JSON.stringify({ kind: "state", seq, revision: 0, state: { index: 0, beat: 0, begun_ms: [0] } });
                    await fetch(say, { method: "POST", headers, body });
                    await new Promise((done) => setTimeout(done, every));
                  }
                  return said;
                }""",
                [run["say"], PRESSES, EVERY_S * 1000],
            )
        )
        time.sleep(1)
        mine.send("enough")
        heard = mine.recv()
        others.join(10)
        delays = sorted(at - said[seq] for seq, times in heard.items() if seq in said for at in times)
        yield f"{HOUSES} Houses by the server: states heard of {HOUSES * PRESSES}", f"{len(delays)}", "all"
        figures = f"{statistics.median(delays):.0f} ms; {delays[len(delays) * 95 // 100]:.0f} ms; {delays[-1]:.0f} ms"
        yield "so long after they were said, median; 95 in 100; the slowest", figures, "-; 150 ms; -"
    finally:
        stop_everything()
        program.stop()
