"""An hour of sound: how long after it was chosen its length stands on the shelf and its wave can be read from end to
end.
"""

import tempfile
from collections.abc import Iterator
from pathlib import Path

import av
import numpy as np

from bench.web import signed_in_page
from tests.browser.base import Program, stop_everything

Line = tuple[str, str, str]
HOUR_S, RATE_HZ = 3600, 44_100

WAIT = """async (show) => {
  const about = async () => (await fetch(`/shows/${show}/score.json`)).json();
  const asset = (await about()).assets.find((entry) => entry.name === "hour");
  for (;;) {
    const wave = await (await fetch(`/shows/${show}/media/${asset.id}/wave.json`)).json();
    if (wave.whole || wave.sketch.length) return asset.lasts_ms;
    await new Promise((done) => setTimeout(done, 20));
  }
}"""


UPLOAD = """async (size) => {
  const body = new FormData();
  body.append("file", new Blob([new Uint8Array(size)]), "nothing.mp3");
  const start = performance.now();
  await fetch("/shows/orlmere/shelf", { method: "POST", headers: { "X-CSRFToken": document.querySelector("meta[name=csrf]").content }, body });
  return performance.now() - start;
}"""
"""As many bytes that are no sound: refused as soon as they are looked at, so that this is how long it takes to bring
them over.
"""


PLAYED = """async (show) => {
  const { revision, assets } = await (await fetch(`/shows/${show}/score.json`)).json();
  const asset = assets.find((entry) => entry.name === "hour");
  const edit = { do: "put span", span: { id: "hour", asset_id: asset.id, end: { at: "show end" } } };
  const headers = { "X-CSRFToken": document.querySelector("meta[name=csrf]").content, "Content-Type": "application/json" };
  const reply = await fetch(`/shows/${show}/edit`, { method: "POST", headers, body: JSON.stringify({ revision, edit }) });
  if (!reply.ok) throw new Error(await reply.text());
}"""

SCROLL = """async (by) => {
  const scroll = document.getElementById("score-scroll");
  const frame = () => new Promise(requestAnimationFrame);
  const rest = (ms) => new Promise((done) => setTimeout(done, ms));
  const found = [];
  for (let zoom = 0; zoom < 14; zoom += 1) {
    await rest(1500);
    let before = await frame();
    const gaps = [];
    for (let n = 0; n < 60; n += 1) {
      scroll.scrollLeft += n < 30 ? by : -by;
      const now = await frame();
      gaps.push(now - before);
      before = now;
    }
    found.push(...gaps);
    scroll.dispatchEvent(new KeyboardEvent("keydown", { key: "+", bubbles: true }));
  }
  return found;
}"""
"""Scrolls a second at each of fourteen zooms, from the whole show to a word."""
LATE_MS = 25


def make_hour(path: Path) -> None:
    """A tone that swells and ebbs, with a little noise, as MP3: about 43 MB."""
    t = np.arange(RATE_HZ) / RATE_HZ
    minute = (0.4 * np.sin(2 * np.pi * 220 * t) + 0.02 * np.random.default_rng(1).standard_normal(RATE_HZ)).astype(
        np.float32
    )
    with av.open(str(path), "w") as container:
        stream = container.add_stream("libmp3lame", rate=RATE_HZ, layout="mono", options={"compression_level": "9"})
        stream.bit_rate = 96_000
        for second in range(HOUR_S):
            block = (minute * (0.6 + 0.4 * np.sin(second / 7))).astype(np.float32)
            frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(block[None]), format="fltp", layout="mono")
            frame.sample_rate, frame.pts = RATE_HZ, second * RATE_HZ
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))


def measure() -> Iterator[Line]:
    program = Program(file_bytes=100_000_000)
    try:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "hour.mp3"
            make_hour(path)
            page = signed_in_page(program)
            page.goto(program.address + "/shows/orlmere/")
            upload = min(page.evaluate(UPLOAD, path.stat().st_size) for _ in range(3))
            page.locator("#open-shelf").click()
            page.wait_for_selector("#shelf input[type=file]", state="attached")
            page.evaluate(
                "window.chosen = 0; addEventListener('change', () => { window.chosen ||= performance.now(); }, true)"
            )
            page.locator("#shelf input[type=file]").first.set_input_files(path)
            page.locator("#shelf .shelf-grid").get_by_text("hour", exact=True).wait_for(timeout=60_000)
            told = page.evaluate("performance.now() - window.chosen")
            lasts = page.evaluate(WAIT, "orlmere")
            read = page.evaluate("performance.now() - window.chosen")
            page.evaluate(PLAYED, "orlmere")
            page.goto(program.address + "/shows/orlmere/")
            page.wait_for_selector(".score [data-span]")
            late = {by: sum(gap > LATE_MS for gap in page.evaluate(SCROLL, by)) for by in (0, 60)}
            size = path.stat().st_size / 1e6
            yield f"{size:.0f} MB that are nothing, brought over and refused", f"{upload / 1000:.1f} s", "the baseline"
            yield (
                (f"an hour of MP3 of that size, {lasts / 1000:.1f} s: after that on the shelf"),
                f"{(told - upload) / 1000:.1f} s",
                "told",
            )
            yield "its wave can be looked at from end to end", f"{(read - upload) / 1000:.1f} s", "3 s"
            yield (
                ("its wave at fourteen zooms, scrolled a second at each: late of 840 frames; not scrolled"),
                f"{late[60]}; {late[0]}",
                "alike",
            )
    finally:
        stop_everything()
        program.stop()
