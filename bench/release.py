"""A release of 40 slides with pictures, met over a slow line: the first picture, and what its page ships of script and
style.
"""

import gzip
import io
import statistics
from collections.abc import Iterator
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import msgspec

from bench.film import Line, album, make_material
from bench.web import STATIC, signed_in_page
from ritornel.core.formats.archive import write_archive
from ritornel.core.formats.media import Limits, asset_from, read_medium
from tests.browser.base import Program, browser, stop_everything

SLIDES, TIMES = 40, 5
LINE = {"offline": False, "latency": 150, "downloadThroughput": 200_000, "uploadThroughput": 200_000}
"""1.6 Mbit/s, 150 ms."""

WATCH = """
  // When a visitor sees the first picture of the show: it has come, and a frame with it has been drawn.
  new MutationObserver(() => {
    const first = document.querySelector(".house > .first");
    if (!first || window.seenAt) return;
    first.decode().then(() => requestAnimationFrame(() => requestAnimationFrame(() => { window.seenAt ??= performance.now(); })));
  }).observe(document, { childList: true, subtree: true });
"""


def archive(folder: Path) -> bytes:
    """An album of 40 photographs in the form of an archive."""
    make_material(folder)
    show = album(SLIDES, 6)
    paths, assets = {}, []
    for asset in show.assets:
        path = folder / ("music.wav" if asset.lasts_ms else f"{int(asset.sha256, 16):02d}.jpg")
        made = asset_from(read_medium(path, Limits()), asset.id, asset.name)
        paths[made.sha256] = path
        assets.append(made)
    out = io.BytesIO()
    write_archive(msgspec.structs.replace(show, assets=tuple(assets)), out, lambda sha256: paths[sha256])
    return out.getvalue()


def visit(address: str) -> tuple[float, float, list[str]]:
    """When a new visitor sees the first picture, and when the show runs, in ms from the beginning of the visit; and
    what was loaded.
    """
    context = browser().new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.add_init_script(WATCH)
    context.new_cdp_session(page).send("Network.emulateNetworkConditions", LINE)
    page.goto(address, wait_until="commit")
    page.wait_for_function("() => window.seenAt", timeout=60_000)
    seen = page.evaluate("() => window.seenAt")
    page.wait_for_selector(".house[data-running]", timeout=60_000)
    runs = page.evaluate("() => performance.now()")
    names: list[str] = page.evaluate(
        "performance.getEntriesByType('resource').map((entry) => new URL(entry.name).pathname)"
    )
    context.close()
    return seen, runs, names


def shipped(names: list[str]) -> tuple[int, int]:
    """Bytes of script and style, as they are and compressed."""
    found: list[bytes] = [
        (STATIC / name.removeprefix("/static/ritornel/")).read_bytes()
        for name in dict.fromkeys(names)
        if name.endswith((".js", ".css"))
    ]
    return sum(map(len, found)), sum(len(gzip.compress(data, 6)) for data in found)


def released(page: Any, program: Program, folder: Path) -> str:
    """The address of the release."""
    page.locator("#bring-in").set_input_files(
        {"name": "album.ritornel", "mimeType": "application/zip", "buffer": archive(folder)}
    )
    page.wait_for_url("**/shows/*/")
    page.goto(page.url + "release")
    page.get_by_role("button", name="Make edition 1").click()
    return str(page.get_by_role("textbox", name="Address").input_value())


def measure() -> Iterator[Line]:
    program = Program(file_bytes=30_000_000)
    try:
        with TemporaryDirectory(prefix="ritornel-bench-") as folder:
            address = released(signed_in_page(program), program, Path(folder))
        visits = [visit(address) for _ in range(TIMES)]
        seen = [first for first, _, _ in visits]
        label = f"first picture of a release of {SLIDES} slides over 1.6 Mbit/s, median; slowest"
        yield label, f"{statistics.median(seen):.0f} ms; {max(seen):.0f} ms", "1000 ms"
        yield "it runs after, median", f"{statistics.median(runs for _, runs, _ in visits) / 1000:.1f} s", ""
        plain, packed = shipped(visits[0][2])
        yield "its page's script and style; compressed", f"{plain / 1000:.0f} KB; {packed / 1000:.1f} KB", "60 KB"
    finally:
        program.stop()
        stop_everything()
