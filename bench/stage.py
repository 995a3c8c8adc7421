"""The stage of a slide of 300 objects: the work of a pointer's move while one is dragged, and of picking one."""

from collections.abc import Iterator

from tests.browser.base import browser, program, signed_in, stop_everything

Line = tuple[str, str, str]

CROWD = """
from django.contrib.auth.models import User
from ritornel.core.document import Box, Plain, Shape, Show as Value, Slide
from ritornel.web.shows.services import Show, create_rows
forms = ("rectangle", "ellipse", "star", "wheel")
items = tuple(Shape(f"o{n}", f"Object {n}", Box(20 + n % 25 * 50, 20 + n // 25 * 56, 40, 40), forms[n % 4], fill=Plain("@second")) for n in range(300))
create_rows(Show(id="crowd", owner=User.objects.get(username="winder")), Value("crowd", "Crowd", slides=(Slide("s", "Crowd", objects=items),)))
"""

MEASURE = """async () => {
  const svg = document.querySelector("[data-stage]");
  const settle = () => document.body.getBoundingClientRect();
  const times = { moves: [], picks: [] };
  const send = (node, kind, x, y) => node.dispatchEvent(new PointerEvent(kind, { bubbles: true, clientX: x, clientY: y, button: 0, pointerId: 1 }));
  for (let n = 0; n < 20; n += 1) {
    const node = svg.querySelector(`[data-object="o${n * 13}"] path`);
    const box = node.getBoundingClientRect();
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    let start = performance.now();
    send(node, "pointerdown", x, y);
    settle();
    times.picks.push(performance.now() - start);
    for (let step = 1; step <= 15; step += 1) {
      await new Promise(requestAnimationFrame);
      start = performance.now();
      send(window, "pointermove", x + step * 3, y + step * 2);
      settle();
      times.moves.push(performance.now() - start);
    }
    window.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", bubbles: true }));
    await new Promise(requestAnimationFrame);
  }
  for (const list of Object.values(times)) list.sort((a, b) => a - b);
  return times;
}"""


def measure() -> Iterator[Line]:
    try:
        program().manage(CROWD)
        page = browser().new_context(viewport={"width": 1280, "height": 800}, storage_state=signed_in()).new_page()
        page.goto(program().address + "/shows/crowd/")
        page.wait_for_selector('[data-object="o299"]')
        page.locator(".fold-head").click()
        times = page.evaluate(MEASURE)
        moves, picks = times["moves"], times["picks"]
        yield from [
            (
                "a move of the pointer while one of 300 objects is dragged, median",
                f"{moves[len(moves) // 2]:.2f} ms",
                "8 ms",
            ),
            ("the same, 95 in 100", f"{moves[int(len(moves) * 0.95)]:.2f} ms", ""),
            ("picking one of 300 objects, their list open, median", f"{picks[len(picks) // 2]:.1f} ms", "50 ms"),
            ("the slowest", f"{picks[-1]:.1f} ms", "50 ms"),
        ]
    finally:
        stop_everything()
