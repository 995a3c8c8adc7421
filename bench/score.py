"""The score of 200 slides while it is scrolled and zoomed: frames that come late."""

from collections.abc import Iterator

from bench.web import brought_in
from tests.browser.base import browser, program, signed_in, stop_everything

Line = tuple[str, str, str]

MEASURE = """async () => {
  const scroll = document.getElementById("score-scroll");
  const frame = () => new Promise(requestAnimationFrame);
  const run = async (count, act) => {
    const gaps = [];
    let before = await frame();
    for (let n = 0; n < count; n += 1) {
      act(n);
      const now = await frame();
      gaps.push(now - before);
      before = now;
    }
    return gaps.sort((a, b) => a - b);
  };
  const idle = await run(60, () => undefined);
  const scrolled = await run(180, (n) => { scroll.scrollLeft += n < 90 ? 120 : -120; });
  // A hand on the wheel: 3 % a frame, in for a second and out for one, at a place between the edges.
  const at = { bubbles: true, cancelable: true, ctrlKey: true, clientX: scroll.getBoundingClientRect().left + 300 };
  const wheeled = await run(120, (n) => scroll.dispatchEvent(new WheelEvent("wheel", { ...at, deltaY: n < 60 ? -12 : 12 })));
  const pressed = await run(120, (n) => { if (n % 12 === 0) scroll.dispatchEvent(new KeyboardEvent("keydown", { key: n < 60 ? "+" : "-", bubbles: true })); });
  return { idle, scrolled, wheeled, pressed };
}"""
WHILE = {
    "idle": "the baseline: frames while nothing happens",
    "scrolled": "while 200 slides are scrolled",
    "wheeled": "while they are zoomed by wheel",
    "pressed": "while they are zoomed by keys, five a second",
}
LATE_MS = 25
"""One frame and a half at 60 a second."""


def measure() -> Iterator[Line]:
    try:
        page = browser().new_context(viewport={"width": 1280, "height": 800}, storage_state=signed_in()).new_page()
        page.goto(program().address + "/")
        page.goto(brought_in(page, 200))
        page.wait_for_selector(".score :is(.build, .crowd)")
        times = page.evaluate(MEASURE)
        for name, words in WHILE.items():
            gaps = times[name]
            late = sum(gap > LATE_MS for gap in gaps)
            yield (
                (f"{words}: median between frames; late of {len(gaps)}"),
                f"{gaps[len(gaps) // 2]:.1f} ms; {late}",
                "16.7 ms; as idle",
            )
    finally:
        stop_everything()
