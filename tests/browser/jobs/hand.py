"""Hands that count what they do: each press, each pull, each key and each entry that is typed is one act. A job is
written once, and done by mouse, by finger on a tablet, and by keyboard alone.
"""

from collections.abc import Callable
from pathlib import Path
from typing import Any, ClassVar

from playwright.sync_api import Locator, Page, TimeoutError, expect

from tests.browser.base import LIGHT, Finger, signed_in
from tests.browser.test_stage import StageTest


def middle_of(what: Locator, down: float = 0.5) -> tuple[float, float]:
    """A place on something that is in view, in the middle of its width and `down` of its height."""
    box = what.bounding_box()
    assert box
    return box["x"] + box["width"] / 2, box["y"] + box["height"] * down


def show_both(row: Locator, goal: Locator) -> None:
    """Scrolls a list so that a row and a place above it are in view, the place clear of the edge, where lists scroll."""
    row.scroll_into_view_if_needed()
    goal.evaluate("""(node) => {
      const list = node.closest(".order");
      list.scrollTop -= Math.max(list.getBoundingClientRect().top + 42 - node.getBoundingClientRect().top, 0);
    }""")


class Hand:
    """Mouse and keyboard on a page."""

    window: ClassVar[dict[str, Any] | None] = None

    def __init__(self, page: Page) -> None:
        self.page = page
        self.acts = 0

    def press(self, what: Locator, **how: Any) -> None:
        """Presses something once."""
        self.acts += 1
        what.click(**how)

    def key(self, keys: str) -> None:
        """One key, or keys held together."""
        self.acts += 1
        self.page.keyboard.press(keys)

    def type(self, words: str) -> None:
        """One entry, of however many lines."""
        self.acts += 1
        self.page.keyboard.type(words)

    def choose(self, field: Locator, words: str) -> None:
        """Opens a list and presses a line of it."""
        self.acts += 2
        field.select_option(label=words)

    def files(self, button: Locator, *paths: Path | dict[str, Any]) -> None:
        """Presses a button and chooses files in the window that it opens."""
        self.acts += 2
        with self.page.expect_file_chooser() as chooser:
            button.click()
        chooser.value.set_files(list(paths))  # type: ignore[arg-type]

    def pull(self, what: Locator, goal: tuple[float, float]) -> None:
        """Pulls something to a place of the window."""
        self.acts += 1
        x, y = middle_of(what)
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move((x + goal[0]) / 2, (y + goal[1]) / 2, steps=4)
        self.page.mouse.move(*goal, steps=3)
        self.page.mouse.up()

    def move_row(self, row: Locator, goal: Locator, down: float, done: Callable[[], bool]) -> None:
        """Takes a row of the running order to `down` of the height of another above it; it is `done` then."""
        del done
        show_both(row, goal)
        self.pull(row, middle_of(goal, down))

    def place_framing(self, tag: Locator, x: float, y: float) -> None:
        """Puts the framing that was made last to a place, in shares of the stage."""
        stage = self.page.locator(".theatre [data-stage]").bounding_box()
        assert stage
        self.pull(tag, (stage["x"] + x * stage["width"], stage["y"] + y * stage["height"]))

    def take(self, tile: Locator) -> None:
        """Puts something of the shelf where it is wanted."""
        self.acts += 2
        tile.dblclick()

    def leave_words(self) -> None:
        """Ends typing on the stage; what was typed is picked."""
        self.key("Escape")

    def let_go(self) -> None:
        """Lets go of what is picked."""
        self.key("Escape")

    def next_slide(self, slide: str) -> None:
        """Goes on to the slide after this one."""
        del slide
        self.key("PageDown")

    def copy_slide(self) -> None:
        """Duplicates the slide."""
        self.key("Control+d")

    def pick_bars(self, bars: Locator, first: int, last: int) -> None:
        """Picks slides that stand together in the overview."""
        self.press(bars.nth(first))
        self.press(bars.nth(last), modifiers=["Shift"])

    def close_overview(self) -> None:
        """Goes back to the stage."""
        self.key("Escape")


class FingerHand(Hand):
    """A finger on a tablet on its side, and the keyboard that comes with a field."""

    window = {"viewport": {"width": 1024, "height": 768}, "has_touch": True}

    def press(self, what: Locator, **how: Any) -> None:
        self.acts += 1
        what.tap(**how)

    def key(self, keys: str) -> None:
        raise AssertionError(f"a finger has no key {keys}")

    def files(self, button: Locator, *paths: Path | dict[str, Any]) -> None:
        self.acts += 2
        with self.page.expect_file_chooser() as chooser:
            button.tap()
        chooser.value.set_files(list(paths))  # type: ignore[arg-type]

    def pull(self, what: Locator, goal: tuple[float, float]) -> None:
        self._pull(what, goal, rests=False)

    def _pull(self, what: Locator, goal: tuple[float, float], rests: bool) -> None:
        self.acts += 1
        finger = Finger(self.page)
        finger.down(*middle_of(what))
        if rests:
            # What lies in a list is lifted by a finger that rests on it; one that moves at once scrolls.
            expect(self.page.locator(".dragged").first).to_be_attached()
        finger.move(*goal)
        finger.move(goal[0], goal[1] - 1)
        finger.up()

    def move_row(self, row: Locator, goal: Locator, down: float, done: Callable[[], bool]) -> None:
        del done
        show_both(row, goal)
        self._pull(row, middle_of(goal, down), rests=True)

    def take(self, tile: Locator) -> None:
        self.press(tile)
        self.press(
            self.page.locator("#shelf .push.main", has_text="to the slide").or_(
                self.page.locator("#shelf .push.main", has_text="Put it")
            )
        )

    def leave_words(self) -> None:
        self.press(self.page.get_by_role("button", name="Done"))

    def let_go(self) -> None:
        # Beside the slide.
        self.acts += 1
        box = self.page.locator(".theatre").bounding_box()
        assert box
        self.page.touchscreen.tap(box["x"] + 6, box["y"] + box["height"] - 6)

    def next_slide(self, slide: str) -> None:
        self.press(self.page.locator(f'.score [data-pick="slide"][data-slide="{slide}"]').first)

    def copy_slide(self) -> None:
        # A finger that rests beside the slide opens its menu.
        self.acts += 1
        box = self.page.locator(".theatre").bounding_box()
        assert box
        finger = Finger(self.page)
        finger.down(box["x"] + 6, box["y"] + box["height"] / 2)
        entry = self.page.get_by_role("menuitem", name="Duplicate the slide")
        expect(entry).to_be_visible()
        finger.up()
        self.press(entry)

    def pick_bars(self, bars: Locator, first: int, last: int) -> None:
        self.press(self.page.get_by_role("button", name="Pick several"))
        for number in range(first, last + 1):
            self.press(bars.nth(number))

    def close_overview(self) -> None:
        self.press(self.page.locator("#overview").get_by_role("button", name="Close"))


STOPS_TO = """(node) => {
  const stops = [...document.querySelectorAll("a[href], button, input, select, textarea, summary, [tabindex]")].filter(
    (stop) => stop.tabIndex >= 0 && !stop.disabled && stop.checkVisibility() && !stop.closest("[inert]"));
  const from = stops.indexOf(document.activeElement);
  return from < 0 ? 0 : stops.indexOf(node) - from;
}"""
"""About how many presses of Tab lead to an element; a set whose stops are one by arrows may be less."""
WHERE = """(node, sets) => document.activeElement === node ? "here" :
  node.tabIndex < 0 && node.closest(sets)?.contains(document.activeElement) ? "in its set" : "elsewhere\""""
COMPOSITE = "[role=tablist], [role=radiogroup], [role=toolbar], .ov-page, .overview"


class KeysHand(Hand):
    """The keyboard alone: what is wanted is gone to from region to region, from stop to stop, and inside what is one
    stop by arrows. Going somewhere is no act.
    """

    MOST_STOPS = 90

    def _is_at(self, what: Locator) -> bool:
        return bool(what.evaluate("(node) => node === document.activeElement"))

    def go_to(self, what: Locator) -> None:
        """Brings the focus to something, without pressing it."""
        expect(what).to_be_visible()
        self._to_region(what)
        # Most of the way without looking: each look takes longer than two presses.
        for _ in range(min(what.evaluate(STOPS_TO), self.MOST_STOPS) - 2):
            self.page.keyboard.press("Tab")
        for _ in range(self.MOST_STOPS):
            where = what.evaluate(WHERE, COMPOSITE)
            if where == "here":
                return
            self.page.keyboard.press("ArrowRight" if where == "in its set" else "Tab")
        raise AssertionError(f"{what} is not reached by {self.MOST_STOPS} presses of Tab and the arrows")

    def _to_region(self, what: Locator) -> None:
        """By F6, where the page has regions and the wanted place is in another one."""
        beside = """(node) => {
          const region = node.closest('[data-region], .stage, .panel, .score, .bar');
          return !region || region.contains(document.activeElement) || Boolean(document.querySelector('dialog[open]'));
        }"""
        for _ in range(8):
            if what.evaluate(beside):
                return
            self.page.keyboard.press("F6")

    def press(self, what: Locator, **how: Any) -> None:
        del how
        self.go_to(what)
        self.key("Enter")

    def choose(self, field: Locator, words: str) -> None:
        self.go_to(field)
        self.key("Alt+ArrowDown")
        self.page.keyboard.type(words)
        self.key("Enter")

    def files(self, button: Locator, *paths: Path | dict[str, Any]) -> None:
        button.wait_for()
        inside = button.locator("xpath=ancestor-or-self::label").locator("input[type=file]")
        opener = inside if inside.count() else button
        self.go_to(opener)
        try:
            with self.page.expect_file_chooser() as chooser:
                self.key("Space")
        except TimeoutError:
            # On a machine that is busy with other things the browser may swallow the window; nobody may take the focus.
            self.at_stop(opener)
            with self.page.expect_file_chooser() as chooser:
                self.key("Space")
        chooser.value.set_files(list(paths))  # type: ignore[arg-type]
        self.acts += 1

    def at_stop(self, what: Locator) -> None:
        """Holds that the focus is still there, and tells where it is instead."""
        if not self._is_at(what):
            raise AssertionError(self.page.evaluate("`the focus went to ${document.activeElement.outerHTML}`"))

    def pull(self, what: Locator, goal: tuple[float, float]) -> None:
        raise AssertionError("a keyboard pulls nothing")

    def move_row(self, row: Locator, goal: Locator, down: float, done: Callable[[], bool]) -> None:
        del goal, down
        # With its wait: the beat goes past others as one.
        self.go_to(row.locator("xpath=preceding-sibling::li[contains(@class, 'wait')][1]").locator(".stop"))
        show = self.page.locator("#compose")
        for _ in range(8):
            if done():
                return
            before = show.get_attribute("data-revision") or ""
            self.key("Alt+ArrowUp")
            expect(show).not_to_have_attribute("data-revision", before)
        raise AssertionError("the row does not come to its place by eight presses of Alt and the arrow up")

    def place_framing(self, tag: Locator, x: float, y: float) -> None:
        for field, share in (("From the left", x), ("From the top", y)):
            number = self.page.get_by_label(field)
            self.go_to(number)
            self.page.keyboard.press("Control+a")
            self.type(str(round(share * (2560 if field == "From the left" else 1440))))
            self.key("Enter")

    def take(self, tile: Locator) -> None:
        self.go_to(tile)
        if tile.get_attribute("aria-pressed") == "false":
            self.key("Enter")
            expect(tile).to_have_attribute("aria-pressed", "true")
        self.key("Enter")

    def pick_bars(self, bars: Locator, first: int, last: int) -> None:
        self.go_to(bars.nth(first))
        for _ in range(first, last):
            self.key("Shift+ArrowRight")


class JobTest(StageTest):
    """A job on a page, with a hand."""

    hand_class: type[Hand] = Hand

    def setUp(self) -> None:
        super().setUp()
        if self.hand_class.window is not None:
            context = self.new_context(**self.hand_class.window, storage_state=signed_in())
            self.page = self.new_page(context)
            self.page.goto(self.base + LIGHT)
        self.hand = self.hand_class(self.page)

    def button(self, name: str, inside: Locator | None = None, exact: bool = True) -> Locator:
        return (inside or self.page).get_by_role("button", name=name, exact=exact)

    def new_slide(self, layout: str) -> None:
        self.hand.press(self.page.locator('[data-tray="slide"]'))
        self.hand.press(self.page.locator(f'[data-layout="{layout}"]'))

    def check_acts(self, most: int) -> None:
        """The job took at most so many acts by mouse and keys together; a hand with less may need half as many more."""
        self.assertLessEqual(self.hand.acts, most if self.hand_class is Hand else most * 1.5)
