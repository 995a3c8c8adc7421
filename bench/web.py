"""An edit on a show of 200 slides through the whole stack, and opening Compose on it."""

import io
import json
import os
import statistics
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from bench.schedule import long_show
from ritornel.core.formats.archive import write_archive
from tests.browser.base import NAME, PASSWORD, Program, browser, stop_everything

STATIC = Path(__file__).resolve().parents[1] / "src/ritornel/web/static/ritornel"
Line = tuple[str, str, str]

COUNT = """
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.db import connection
from django.contrib.auth.models import User
from ritornel.web.shows.models import Show
client = Client(); client.force_login(User.objects.get(username='winder'))
row = Show.objects.exclude(pk__in=['orlmere', 'told', 'pendulum']).first()
with CaptureQueriesContext(connection) as caught: client.get(f'/shows/{row.pk}/', HTTP_HOST='localhost')
print(len(caught))
"""


def shipped(page: Any) -> int:
    """Bytes of script and style that the page loaded, before compression."""
    names = page.evaluate("performance.getEntriesByType('resource').map((entry) => new URL(entry.name).pathname)")
    return sum(
        (STATIC / name.removeprefix("/static/ritornel/")).stat().st_size
        for name in names
        if name.endswith((".js", ".css"))
    )


def brought_in(page: Any, slides: int) -> str:
    """The address of Compose of a show of so many slides."""
    out = io.BytesIO()
    write_archive(long_show(slides), out, lambda sha256: Path(os.devnull))
    page.locator("#bring-in").set_input_files(
        {"name": "long.ritornel", "mimeType": "application/zip", "buffer": out.getvalue()}
    )
    page.wait_for_url("**/shows/*/")
    return str(page.url)


def opening(page: Any, address: str, times: int) -> list[float]:
    """How long Compose takes until score and stage are there, in ms."""
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        page.goto(address)
        page.wait_for_selector(".score :is(.build, .crowd)")
        page.wait_for_selector(".theatre [data-object]")
        taken.append((time.perf_counter() - start) * 1000)
    return taken


def signed_in_page(program: Program) -> Any:
    """The list of shows of a program."""
    page = browser().new_context(viewport={"width": 1280, "height": 800}).new_page()
    page.goto(program.address + "/sign-in/")
    page.fill("[name=username]", NAME)
    page.fill("[name=password]", PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_url(program.address + "/")
    return page


def measure() -> Iterator[Line]:
    program = Program()
    try:
        page = signed_in_page(program)
        opened_500 = opening(page, brought_in(page, 500), 3)
        page.goto(program.address + "/")
        address = brought_in(page, 200)
        opened = opening(page, address, 5)
        size = shipped(page)
        show_id = address.rstrip("/").split("/")[-1]
        # From a page that does not follow the show: Compose would fetch and draw everything again for edits it did not
        # make itself.
        page.goto(program.address + "/")
        edits = page.evaluate(
            """async ([id]) => {
              const token = document.querySelector("meta[name=csrf]").content;
              let { revision } = await (await fetch(`/shows/${id}/score.json`)).json();
              const times = [];
              for (let n = 0; n < 30; n += 1) {
                const start = performance.now();
                const edit = { do: "change build", slide_id: "s100", build_id: "b100-3", changes: { after_ms: n * 10 } };
                const reply = await fetch(`/shows/${id}/edit`, { method: "POST", headers: { "X-CSRFToken": token, "Content-Type": "application/json" },
                  body: JSON.stringify({ revision, edit, viewing: "s100" }) });
                ({ revision } = await reply.json());
                times.push(performance.now() - start);
              }
              return times;
            }""",
            [show_id],
        )
        words = [sys.executable, "manage.py", "shell", "-v", "0", "-c", COUNT]
        queries = subprocess.run(
            words, env=program.environment, capture_output=True, text=True, check=True
        ).stdout.split()[-1]
        yield from [
            ("an edit on 200 slides, median of 30", f"{statistics.median(edits):.0f} ms", "100 ms"),
            (
                f"the slowest of them, number {edits.index(max(edits)) + 1}; over 100 ms",
                f"{max(edits):.0f} ms; {sum(one > 100 for one in edits)}",
                "100 ms; 0",
            ),
            ("Compose of 200 slides opens, median of 5", f"{statistics.median(opened):.0f} ms", "1 500 ms"),
            ("Compose of 500 slides opens, median of 3", f"{statistics.median(opened_500):.0f} ms", "1 000 ms"),
            ("queries to open it", json.dumps(int(queries)), "under 12"),
            ("script and style shipped", f"{size / 1000:.0f} KB", "250 KB"),
        ]
    finally:
        stop_everything()
        program.stop()
