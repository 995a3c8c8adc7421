"""Ten people at one show of 200 and of 500 slides: how long an edit takes while all the others hear of it and fetch what
changed, and while each makes an edit of their own every four seconds. Beside it the same person's edits while nobody
else is there.
"""

import json
import statistics
import threading
import time
import urllib.request
from collections.abc import Iterator

from bench.schedule import bare_loop, best_ms
from tests.browser.base import Program

Line = tuple[str, str, str]
PEOPLE, EDITS, EVERY_S = 10, 40, 4.0

MADE = f"""
import json, msgspec
from django.contrib.auth.models import User
from django.test import Client
from django.utils import timezone
from bench.schedule import long_show
from ritornel.web.people.models import Invitation
from ritornel.web.shows.services import Show, create_rows
people = [User.objects.create(username=f"maker-{{number}}") for number in range({PEOPLE})]
for slides in (200, 500):
    row = Show(id=f"team-{{slides}}", owner=people[0])
    create_rows(row, msgspec.structs.replace(long_show(slides), id=row.id))
    for person in people[1:]:
        Invitation.objects.create(show=row, person=person, by=people[0], address=f"{{person}}@orlmere.example",
            role="edit", accepted_at=timezone.now())
lines = []
for person in people:
    client = Client()
    client.force_login(person)
    lines.append((person.pk, client.cookies["sessionid"].value))
print(json.dumps(lines))
"""


HISTORY = """
from ritornel.web.shows.models import Edit
sizes = [len(step.changes) + len(step.inverse) for step in Edit.objects.filter(show__in=["team-200", "team-500"])]
print(round(sum(sizes) / len(sizes)))
"""


class Maker:
    """One person at a show: hears of every change, fetches it, and edits a slide of their own."""

    def __init__(self, base: str, show_id: str, number: int, person: int, session: str) -> None:
        self.place, self.number = f"{base}/shows/{show_id}", number
        self.headers = {"Cookie": f"sessionid={session}; csrftoken={'t' * 32}", "X-CSRFToken": "t" * 32}
        self.revision = self._get("/score.json")["revision"]
        self.person = person
        self.slide = f"s{number + 10}"
        self.heard = threading.Event()
        self.made: list[tuple[int, float]] = []
        self.knew_at: list[tuple[int, float]] = []

    def _get(self, path: str) -> dict:
        request = urllib.request.Request(self.place + path, headers=self.headers)
        with urllib.request.urlopen(request) as reply:
            return json.load(reply)

    def listen(self, over: threading.Event) -> None:
        """Follows the show as Compose does."""
        request = urllib.request.Request(f"{self.place}/events?window=w{self.number}", headers=self.headers)
        with urllib.request.urlopen(request) as lines:
            self.heard.set()
            event = b""
            for line in lines:
                if over.is_set():
                    return
                if line.startswith(b"data:") and event in (b"revision", b"changes"):
                    told = json.loads(line[5:])
                    self._hear(told if event == b"changes" else {"revision": told})
                event = line[7:].strip() if line.startswith(b"event: ") else b""

    def _hear(self, told: dict) -> None:
        if told["revision"] <= self.revision:
            return
        if told.get("since") != self.revision or self.person in told["ask"] or self.slide in told["stages"]:
            told = self._get(f"/changes.json?since={self.revision}&viewing={self.slide}")
        self.revision = told["revision"]
        self.knew_at.append((self.revision, time.perf_counter()))

    def edit(self, count: int) -> float:
        """Changes when a build of the own slide begins; how long that takes, in ms."""
        edit = {
            "do": "change build",
            "slide_id": self.slide,
            "build_id": f"b{self.number + 10}-3",
            "changes": {"after_ms": count * 10},
        }
        body = json.dumps({"revision": self.revision, "edit": edit, "viewing": self.slide}).encode()
        headers = {**self.headers, "Content-Type": "application/json"}
        began = time.perf_counter()
        with urllib.request.urlopen(urllib.request.Request(f"{self.place}/edit", body, headers)) as reply:
            answer = json.load(reply)
        taken_ms = (time.perf_counter() - began) * 1000
        self.revision = max(self.revision, answer["revision"])
        self.made.append((answer["revision"], began))
        return taken_ms

    def knew_after_ms(self, edits: list[tuple[int, float]]) -> list[float]:
        """How long after each of somebody's edits was sent this person's window had it, in ms."""
        found = ((began, next((at for known, at in self.knew_at if known >= made), None)) for made, began in edits)
        return [(at - began) * 1000 for began, at in found if at is not None]


def _edit_now_and_then(maker: Maker, over: threading.Event) -> None:
    # People do not act in step: each begins at another moment of the four seconds.
    over.wait(EVERY_S * maker.number / PEOPLE)
    count = 0
    while not over.wait(EVERY_S):
        maker.edit(count)
        count += 1


def _measured(base: str, show_id: str, sessions: list[tuple[int, str]]) -> tuple[list[float], list[float]]:
    """How long each edit of the first person took, and after how long another one's window had it, in ms."""
    over = threading.Event()
    makers = [Maker(base, show_id, number, *who) for number, who in enumerate(sessions)]
    threads = [threading.Thread(target=maker.listen, args=(over,), daemon=True) for maker in makers]
    threads += [threading.Thread(target=_edit_now_and_then, args=(maker, over), daemon=True) for maker in makers[1:]]
    for thread in threads:
        thread.start()
    for maker in makers:
        maker.heard.wait(10)
    taken = []
    for count in range(EDITS):
        taken.append(makers[0].edit(count))
        time.sleep(0.4)
    time.sleep(1)
    over.set()
    return taken, makers[1].knew_after_ms(makers[0].made) if len(makers) > 1 else []


def measure() -> Iterator[Line]:
    program = Program()
    try:
        sessions = json.loads(program.manage(MADE))
        yield (
            "the baseline: a bare Python loop of ten million additions",
            f"{best_ms(bare_loop, 3):.0f} ms",
            "about 500 ms",
        )
        for slides, wanted in ((200, 100), (500, 120)):
            for people in (sessions[:1], sessions):
                taken, known = _measured(program.address, f"team-{slides}", people)
                yield (
                    f"an edit on {slides} slides, people at the show: {len(people)}; median and slowest of {EDITS}",
                    f"{statistics.median(taken):.0f} ms; {max(taken):.0f} ms",
                    f"{wanted} ms",
                )
            yield (
                f"another of the ten sees an edit on {slides} slides after it was sent, median and slowest",
                f"{statistics.median(known):.0f} ms; {max(known):.0f} ms",
                "500 ms",
            )
        yield "history of an edit, mean", f"{program.manage(HISTORY)} bytes", "2 048 bytes"
    finally:
        program.stop()
