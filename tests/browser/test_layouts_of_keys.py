"""Keys on keyboards whose letters are not Latin, or stand elsewhere. A browser tells of each key its letter and its
place; both are said here as such a keyboard says them.
"""

from playwright.sync_api import expect

from tests.browser.test_stage import StageTest

PRESS = """([key, code, more]) => {
  const how = { key, code, bubbles: true, cancelable: true, ...more };
  document.activeElement.dispatchEvent(new KeyboardEvent("keydown", how));
  document.activeElement.dispatchEvent(new KeyboardEvent("keyup", how));
}"""
UNDO = {"Cyrillic": ("я", "KeyZ"), "Greek": ("ζ", "KeyZ"), "AZERTY": ("z", "KeyW"), "Dvorak": ("z", "Slash")}
BLACK = {"Cyrillic": ("и", "KeyB"), "Greek": ("β", "KeyB"), "AZERTY": ("b", "KeyB"), "Dvorak": ("b", "KeyN")}


class LayoutsOfKeysTest(StageTest):
    def press(self, key: str, code: str, **more: bool) -> None:
        self.page.evaluate(PRESS, [key, code, more])

    def test_undo_is_under_its_letter_on_every_keyboard(self) -> None:
        show = self.compose("esc-s")
        for name, (key, code) in UNDO.items():
            self.add(show, {"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": f"By {name}"}})
            self.press(key, code, ctrlKey=True)
            self.until(lambda: self.slide(show, "esc-s")["name"] == "The escapement", name)

    def test_what_stands_where_another_keyboard_has_a_letter_does_nothing(self) -> None:
        show = self.compose("esc-s")
        self.add(show, {"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Kept"}})
        self.press("w", "KeyZ", ctrlKey=True)  # where Z is on an English keyboard, AZERTY has W
        self.press("ж", "Semicolon", ctrlKey=True)
        self.press("z", "Slash", ctrlKey=True)
        self.until(lambda: self.slide(show, "esc-s")["name"] == "The escapement", "only the last one is undo")

    def test_black_and_a_number_work_while_a_show_plays(self) -> None:
        self.page.goto(f"{self.base}/shows/orlmere/play?mode=on cue")
        self.page.wait_for_selector(".house[data-ready]")
        for name, (key, code) in BLACK.items():
            with self.subTest(name):
                self.press(key, code)
                self.until(lambda: self.darkness() == 1, name)
                self.press(key, code)
                self.until(lambda: self.darkness() == 0, name)
        self.press("'", "Digit4")  # a French keyboard has its digits above Shift
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".house")).to_have_attribute("data-slide", "two-s")

    def darkness(self) -> float:
        """How black the picture is, as the painter shows it."""
        return float(
            self.page.evaluate(
                "() => Number(document.querySelector('.house > svg > rect:last-of-type').getAttribute('opacity'))"
            )
        )
