"""The browser's painter: its work per frame on a slide of 30 moving objects."""

import json
from collections.abc import Iterator

import msgspec

from ritornel.core.document import AdvanceAfter, Box, Build, Follows, Plain, Shape, Show, Slide, Together
from ritornel.core.schedule.performance import builtins_of, perform
from tests.browser.base import browser, program, stop_everything

Line = tuple[str, str, str]


def busy_slide(objects: int = 30) -> Show:
    forms = ("wheel", "star", "ellipse")
    shapes = tuple(
        Shape(
            f"o{n}",
            f"Object {n}",
            Box(40 + n % 10 * 120, 60 + n // 10 * 220, 100, 100),
            forms[n % 3],
            fill=Plain("#8a2456"),
            points=12,
        )  # type: ignore[arg-type]
        for n in range(objects)
    )
    effects = ("enters rise", "enters settle", "accents pulse")
    order = tuple(
        Build(
            id=f"b{n}",
            object_id=f"o{n}",
            effect=effects[n % 3],
            starts=Together() if n else Follows(),
            after_ms=0,
            lasts_ms=4000,
            pace="ease in and out",
        )
        for n in range(objects)
    )
    return Show("busy", "Busy", slides=(Slide("s", objects=shapes, order=order, advance=AdvanceAfter(4000)),))


def measure() -> Iterator[Line]:
    show = builtins_of(perform(busy_slide()), {})
    try:
        page = browser().new_context(viewport={"width": 1280, "height": 720}).new_page()
        page.goto(program().address + "/sign-in/")
        result = page.evaluate(
            """async (text) => {
              const show = JSON.parse(text);
              const { Painter } = await import("/static/ritornel/player/painter.js");
              const { frameStateAt } = await import("/static/ritornel/player/frame-state.js");
              document.body.innerHTML = '<svg width="1280" height="720"></svg>';
              const painter = new Painter(document.querySelector("svg"), show);
              const times = [];
              for (let frame = 0; frame < 230; frame += 1) {
                await new Promise(requestAnimationFrame);
                const start = performance.now();
                painter.paint(frameStateAt(show, frame * 16.7));
                document.querySelector("svg").getBoundingClientRect();  // style and layout belong to the work
                times.push(performance.now() - start);
              }
              return times.slice(5).sort((a, b) => a - b);
            }""",
            json.dumps(msgspec.to_builtins(show)),
        )
        yield from [
            ("the painter's work a frame, 30 moving objects, median", f"{result[len(result) // 2]:.2f} ms", "4 ms"),
            ("the same, 95 in 100", f"{result[int(len(result) * 0.95)]:.2f} ms", ""),
        ]
    finally:
        stop_everything()
