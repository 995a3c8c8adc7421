"""The schedule of a very long show."""

import gc
import random
import time
from collections.abc import Callable, Iterator

import msgspec

from ritornel.core.document import Box, Build, Follows, OnCue, Shape, Show, Slide, Together, Transition
from ritornel.core.motion.catalogue import EFFECTS
from ritornel.core.schedule import compile_show, moment_at, show_schedule
from ritornel.core.schedule.tracks import compile_tracks, instant_at, object_values

Line = tuple[str, str, str]


def slide(number: int, builds: int = 20) -> Slide:
    """A slide whose builds use every rule; over two slides, every kind of effect an object can have."""
    objects = tuple(Shape(f"o{number}-{k}", "Shape", Box(0, 0, 10, 10), "rectangle") for k in range(builds))
    effects = [name for name, effect in EFFECTS.items() if effect.kind not in ("views", "plays")]
    order = tuple(
        Build(
            id=f"b{number}-{k}",
            object_id=f"o{number}-{k}",
            effect=effects[(number * builds + k) % len(effects)],
            starts=starts,
        )
        for k in range(builds)
        for starts in [OnCue(f"c{number}-{k}") if k % 4 == 0 else Together() if k % 2 else Follows()]
    )
    return Slide(f"s{number}", f"Slide {number}", objects=objects, order=order, transition=Transition("dissolve", 800))


def long_show(slides: int) -> Show:
    return Show("long", "A long show", slides=tuple(slide(number) for number in range(slides)))


def best_ms(work: Callable[[], object], times: int = 7) -> float:
    """The least time of several, in ms: what the work takes when nothing else disturbs it."""
    found = []
    for _ in range(times):
        gc.collect()
        start = time.perf_counter()
        work()
        found.append((time.perf_counter() - start) * 1000)
    return min(found)


def bare_loop() -> int:
    """What tells how fast this machine is just now."""
    total = 0
    for number in range(10_000_000):
        total += number
    return total


def measure() -> Iterator[Line]:
    show = long_show(1000)
    schedule = compile_show(show)
    changed = msgspec.structs.replace(show, slides=(*show.slides[:500], slide(500), *show.slides[501:]))
    instants = [random.Random(n).random() * schedule.length_ms for n in range(10_000)]
    tracks = [compile_tracks(one, times, show.frame) for one, times in zip(show.slides, schedule.slides, strict=True)]

    def states() -> None:
        for at in instants:
            moment = moment_at(schedule, at)
            object_values(
                tracks[moment.index],
                instant_at(schedule.slides[moment.index], moment.slide_ms, moment.beat, moment.since_ms),
            )

    yield (
        ("the baseline: a bare Python loop of ten million additions"),
        f"{best_ms(bare_loop, 3):.0f} ms",
        "about 500 ms on an undisturbed core",
    )

    def forgotten() -> None:
        show_schedule.forget_schedules()
        compile_show(show)

    yield "schedule of 1 000 slides x 20 builds", f"{best_ms(forgotten):.1f} ms", "60 ms"
    yield (
        ("the same after an edit of one slide"),
        f"{best_ms(lambda: compile_show(changed)):.2f} ms",
        "3 ms",
    )
    yield "10 000 states at random times, all channels", f"{best_ms(states, 3):.0f} ms", "400 ms"
