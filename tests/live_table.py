"""Every event of a live run in every state, as docs/timing.md has it. Each row is a test in Python and in the
browser.
"""

from typing import Any

import msgspec

from ritornel.core.document.show import Show
from ritornel.core.reference.live import LiveState, arrive, back, cue, go_on, goes_on_at_ms, stand, stand_ready
from ritornel.core.schedule.performance import Performance, perform
from tests.examples import example_a

Event = tuple[str, list[int]]
"""A kind of event with what it is about: `jump` has a slide, `stop` a slide and a beat."""


class Row(msgspec.Struct, frozen=True):
    """An event at `now_ms` of a run that began with `before`, and the state it leads to: slide, beat, when its beat was
    completed, whether it was stepped back to, whether the show is over.
    """

    event: str
    where: str
    then: str
    end: str
    before: tuple[tuple[float, Event], ...]
    now_ms: float
    does: Event
    state: tuple[int, int, float | None, bool, bool]


def arrived(slide: int, *more: tuple[float, Event]) -> tuple[tuple[float, Event], ...]:
    """A run that came to a slide at 0."""
    return ((0.0, ("jump", [slide])), *more)


CUE, BACK, TIME, NOTHING = ("cue", []), ("back", []), ("time", []), ("nothing", [])
IN_A_WAIT = arrived(1, (2500, CUE))
LAST_BEAT = arrived(1, (2500, CUE), (3000, CUE))

ROWS: tuple[Row, ...] = (
    Row(
        "begin",
        "standing ready",
        "the clock starts and beat 0 runs",
        "hold",
        ((0.0, ("ready", [0])),),
        0,
        NOTHING,
        (0, 0, None, False, False),
    ),
    Row(
        "cue",
        "in the transition",
        "it is completed at once, and the next beat begins",
        "hold",
        arrived(1),
        100,
        CUE,
        (1, 1, None, False, False),
    ),
    Row(
        "cue",
        "while a beat runs",
        "it is completed at once, and the next beat begins",
        "hold",
        IN_A_WAIT,
        2700,
        CUE,
        (1, 2, None, False, False),
    ),
    Row(
        "cue", "while a wait is open", "the next beat begins", "hold", IN_A_WAIT, 9000, CUE, (1, 2, None, False, False)
    ),
    Row(
        "cue",
        "after the last beat of a slide",
        "the next slide",
        "hold",
        LAST_BEAT,
        9000,
        CUE,
        (2, 0, None, False, False),
    ),
    Row(
        "cue",
        "where the slide would go on by itself",
        "the next slide, at once",
        "hold",
        arrived(0),
        3000,
        CUE,
        (1, 0, None, False, False),
    ),
    Row(
        "cue",
        "in the last beat of a show that holds",
        "it is completed at once",
        "hold",
        arrived(2),
        900,
        CUE,
        (2, 0, 900.0, False, False),
    ),
    Row(
        "cue",
        "after the last beat of a show that holds",
        "nothing",
        "hold",
        arrived(2),
        30_000,
        CUE,
        (2, 0, None, False, False),
    ),
    Row(
        "cue",
        "in or after the last beat of a show that loops",
        "the first slide again",
        "loop",
        arrived(2),
        900,
        CUE,
        (0, 0, None, False, False),
    ),
    Row(
        "cue",
        "in or after the last beat of a show that ends in black",
        "to black in 600 ms",
        "black",
        arrived(2),
        900,
        CUE,
        (2, 0, 900.0, False, True),
    ),
    Row("cue", "after black", "nothing", "black", arrived(2, (900, CUE)), 2000, CUE, (2, 0, 900.0, False, True)),
    Row(
        "cue",
        "after a step back",
        "the next beat begins again",
        "hold",
        (*IN_A_WAIT, (3000, BACK)),
        9000,
        CUE,
        (1, 1, None, False, False),
    ),
    Row(
        "step back",
        "in a later beat",
        "the end of the beat before; the clock runs on",
        "hold",
        IN_A_WAIT,
        3000,
        BACK,
        (1, 0, 3000.0, True, False),
    ),
    Row(
        "step back",
        "in beat 0",
        "the end of the last beat of the slide before",
        "hold",
        arrived(1),
        100,
        BACK,
        (0, 0, 2000.0, True, False),
    ),
    Row("step back", "in the show's first beat", "nothing", "hold", arrived(0), 100, BACK, (0, 0, None, False, False)),
    Row(
        "step back",
        "after black",
        "the end of the last beat",
        "black",
        arrived(2, (50, CUE)),
        100,
        BACK,
        (2, 0, 18_200.0, True, False),
    ),
    Row(
        "jump", "to a slide, from anywhere", "its 0", "hold", IN_A_WAIT, 7000, ("jump", [2]), (2, 0, None, False, False)
    ),
    Row(
        "jump",
        "to a stop, from anywhere",
        "the end of that beat, stepped back to",
        "hold",
        IN_A_WAIT,
        7000,
        ("stop", [1, 1]),
        (1, 1, 3500.0, True, False),
    ),
    Row(
        "time",
        "of a slide that goes on also live",
        "the next slide, when its beats have ended",
        "hold",
        arrived(0),
        5000,
        TIME,
        (1, 0, None, False, False),
    ),
    Row(
        "time",
        "of any other slide",
        "nothing: it waits for a cue",
        "hold",
        LAST_BEAT,
        90_000,
        TIME,
        (1, 2, None, False, False),
    ),
    Row(
        "time",
        "after a step back",
        "nothing: only a cue goes on",
        "hold",
        arrived(0, (4000, CUE), (4100, BACK)),
        90_000,
        TIME,
        (0, 0, 2000.0, True, False),
    ),
    Row(
        "time",
        "of the last slide of a show that holds",
        "nothing",
        "hold",
        arrived(2),
        90_000,
        TIME,
        (2, 0, None, False, False),
    ),
    Row(
        "pause",
        "anywhere",
        "the run's clock stands, and all that runs",
        "hold",
        IN_A_WAIT,
        9000,
        NOTHING,
        (1, 1, None, False, False),
    ),
    Row(
        "lost line",
        "anywhere",
        "every screen goes on; later the higher number counts",
        "hold",
        LAST_BEAT,
        9000,
        NOTHING,
        (1, 2, None, False, False),
    ),
)


def table_show(end: str) -> Performance:
    """Worked example A with its first slide going on by itself also live."""
    show: Show = example_a(end=end)
    one, *rest = show.slides
    return perform(msgspec.structs.replace(show, slides=(msgspec.structs.replace(one, also_live=True), *rest)))


def after_event(show: Performance, state: LiveState | None, event: Event, now_ms: float) -> LiveState:
    """The state after an event."""
    kind, about = event
    if kind == "ready":
        return stand_ready(show, about[0], now_ms)
    if kind == "jump":
        return arrive(show, about[0], now_ms, state.index if state else -1)
    if kind == "stop":
        return stand(show, about[0], about[1], now_ms)
    assert state is not None
    if kind == "time":
        due = goes_on_at_ms(show, state)
        return state if due is None or due > now_ms else go_on(show, state, due)
    return {"cue": cue, "back": back}[kind](show, state, now_ms) if kind != "nothing" else state


def told(state: LiveState) -> tuple[int, int, float | None, bool, bool]:
    """What a row tells of a state."""
    return state.index, state.beat, state.completed_ms, state.stepped_back, state.over


def markdown() -> str:
    """The table as docs/timing.md has it."""
    return "\n".join(
        [
            "| event | where the run is | what happens |",
            "|---|---|---|",
            *(f"| {row.event} | {row.where} | {row.then} |" for row in ROWS),
        ]
    )


def table_vectors(shows: dict[str, Any]) -> dict[str, Any]:
    """The rows with the shows they are about, for the browser."""
    return {"shows": shows, "rows": msgspec.to_builtins(ROWS)}
