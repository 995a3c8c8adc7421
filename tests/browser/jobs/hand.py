"""A hand that counts what it does: each press, each pull, each key and each entry that is typed is one act."""

from pathlib import Path
from typing import Any

from playwright.sync_api import Locator, Page

from tests.browser.test_stage import StageTest


class Hand:
    """Mouse and keyboard on a page."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.acts = 0

    def press(self, what: Locator, **how: Any) -> None:
        """Presses something once."""
        self.acts += 1
        what.click(**how)

    def double_press(self, what: Locator) -> None:
        """Presses something twice."""
        self.acts += 2
        what.dblclick()

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

    def pull(self, what: Locator, goal: Locator, down: float = 0.5) -> None:
        """Pulls something to a place on something else, `down` of its height."""
        self.acts += 1
        what.scroll_into_view_if_needed()
        a, b = what.bounding_box(), goal.bounding_box()
        assert a and b
        self.page.mouse.move(a["x"] + a["width"] / 2, a["y"] + a["height"] / 2)
        self.page.mouse.down()
        self.page.mouse.move(b["x"] + b["width"] / 2, b["y"] + b["height"] * 0.5, steps=4)
        self.page.mouse.move(b["x"] + b["width"] / 2, b["y"] + b["height"] * down, steps=2)
        self.page.mouse.up()


class JobTest(StageTest):
    """A job on a page, with a hand."""

    def setUp(self) -> None:
        super().setUp()
        self.hand = Hand(self.page)

    def button(self, name: str, inside: Locator | None = None, exact: bool = True) -> Locator:
        return (inside or self.page).get_by_role("button", name=name, exact=exact)

    def new_slide(self, layout: str) -> None:
        self.hand.press(self.page.locator('[data-tray="slide"]'))
        self.hand.press(self.page.locator(f'[data-layout="{layout}"]'))

    def check_acts(self, most: int) -> None:
        """The job took at most so many acts."""
        self.assertLessEqual(self.hand.acts, most)
