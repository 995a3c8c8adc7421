import re

from playwright.sync_api import Locator, Route, expect

from tests.browser.base import BrowserTest


class ScoreKeysTest(BrowserTest):
    """The score by keys alone: one place in it has the keyboard."""

    def setUp(self) -> None:
        super().setUp()
        self.show = self.compose("esc-s")
        self.key = self.page.keyboard.press
        self.page.locator(".score-place").first.focus()
        expect(self.here).to_have_attribute("aria-label", re.compile("Slide 3, The escapement, 0:16.8 to"))

    @property
    def here(self) -> Locator:
        return self.page.locator(".score-place:focus")

    def at(self, words: str) -> None:
        expect(self.here).to_have_attribute("aria-label", re.compile(f"^{words}"))

    def hold(self) -> int:
        return int(self.slide(self.show, "esc-s")["order"][2]["starts"]["hold_ms"])

    def test_arrows_walk_along_a_row_and_from_row_to_row(self) -> None:
        self.key("ArrowRight")
        self.at("Dissolve into slide 3, The escapement, 0.9 s")
        self.key("ArrowRight")
        self.at("Slide 4, ")
        self.key("ArrowLeft")
        self.key("ArrowLeft")
        self.at("Slide 3, ")
        self.key("ArrowDown")
        self.at("Wheel enters")
        self.key("ArrowRight")
        self.at("Axle enters")
        self.key("ArrowRight")
        self.at("Wait for cue 1, hold 3.2 s")
        self.key("ArrowDown")
        self.at("Winders' waltz")
        self.key("Home")
        self.at("Winders' waltz begins, at 0:00.0")
        self.key("ArrowUp")
        self.key("ArrowUp")
        self.key("End")
        self.at("The show ")
        # From anywhere F6 leads into it, where it was left.
        self.page.get_by_label("Title of the show").focus()
        self.key("Shift+F6")
        self.at("The show ")
        # It is one stop of the keyboard: the next is behind the score.
        self.key("Tab")
        expect(self.page.locator(".score-place:focus")).to_have_count(0)
        expect(self.page.locator(".score-scroll :focus")).to_have_count(0)

    def test_alt_and_the_arrows_move_what_is_there_and_say_the_number(self) -> None:
        for _ in range(3):
            self.key("ArrowDown") if _ == 0 else self.key("ArrowRight")
        self.at("Wait for cue 1, hold 3.2 s")
        self.key("Alt+ArrowRight")
        self.until(lambda: self.hold() == 3300)
        self.at("Wait for cue 1, hold 3.3 s")
        self.key("Alt+Shift+ArrowLeft")
        self.until(lambda: self.hold() == 2300)
        expect(self.page.locator("#announced")).to_have_text("Hold 2.3 s")
        self.key("ArrowRight")
        self.at("Pallets enters")
        pallets = self.slide(self.show, "esc-s")["order"][2]
        self.key("Alt+ArrowUp")
        self.until(lambda: self.slide(self.show, "esc-s")["order"][2]["lasts_ms"] == pallets["lasts_ms"] + 100)
        self.at("Pallets enters")
        self.key("ArrowUp")
        self.at("Slide 3, ")
        before = self.slide(self.show, "esc-s")["advance"]["after_ms"]
        self.key("Alt+Shift+ArrowRight")
        self.until(lambda: self.slide(self.show, "esc-s")["advance"]["after_ms"] == before + 1000)
        self.key("ArrowDown")
        self.key("ArrowDown")
        self.key("Home")
        self.key("Alt+ArrowRight")
        self.at("Winders' waltz begins, at 0:06.0")
        self.assertEqual(self.score(self.show)["spans"][0]["start"]["slide_id"], "who-s")
        # What was never moved is as it was.
        for _ in range(5):
            self.page.keyboard.press("Control+z")
        self.until(lambda: self.hold() == 3200 and self.slide(self.show, "esc-s")["advance"]["after_ms"] == before)

    def test_each_of_two_quick_moves_is_announced_with_its_own_number(self) -> None:
        for key in ("ArrowDown", "ArrowRight", "ArrowRight"):
            self.key(key)
        self.at("Wait for cue 1, hold 3.2 s")
        self.page.evaluate("""() => {
          const place = document.getElementById("announced");
          window.announcements = [];
          new MutationObserver(() => window.announcements.push(place.textContent)).observe(place, { childList: true });
        }""")
        late: list[Route] = []
        first: list[Route] = []
        self.page.route("**/edit", lambda route: late.append(route) if first else first.append(route))
        self.key("Alt+ArrowRight")
        self.key("Alt+Shift+ArrowLeft")
        self.until(lambda: first)
        first[0].continue_()
        self.until(lambda: late)
        self.until(lambda: self.page.evaluate("window.announcements.length >= 2"))
        late.pop().continue_()
        self.until(lambda: self.page.evaluate("window.announcements.length >= 4"))
        said = self.page.evaluate("window.announcements")
        self.assertEqual(list(dict.fromkeys(said)), ["Hold 3.3 s", "Hold 2.3 s"])

    def test_enter_types_its_number_and_what_is_no_time_is_told(self) -> None:
        self.key("ArrowDown")
        self.key("ArrowRight")
        self.key("ArrowRight")
        self.key("Enter")
        field = self.page.get_by_role("textbox", name=re.compile("^Wait for cue 1, hold 3.2 s"))
        expect(field).to_be_focused()
        field.fill("soon")
        self.key("Enter")
        expect(self.page.get_by_text("“soon” is no time. Write 3.5 or 1:20.")).to_be_visible()
        self.assertEqual(self.hold(), 3200)
        field.fill("4.5")
        self.key("Enter")
        self.until(lambda: self.hold() == 4500)
        self.at("Wait for cue 1, hold 4.5 s")
        self.key("Enter")
        self.key("Escape")
        self.at("Wait for cue 1, hold 4.5 s")
        self.key("Space")
        expect(self.page.locator('.order [data-beat="1"] input')).to_be_focused()

    def test_all_times_are_a_table_whose_slides_can_be_gone_to(self) -> None:
        self.page.get_by_role("button", name="9 slides · 1:22.8").click()
        table = self.page.get_by_role("dialog", name="Times of the show")
        row = table.get_by_role("row").filter(has_text="Wait for cue 1").nth(1)
        expect(row.get_by_role("cell").first).to_have_text("0:18.6")
        expect(row.get_by_role("cell").last).to_have_text("3.2 s")
        expect(table.get_by_role("row").filter(has_text="Winders' waltz ends")).to_contain_text("1:22.8")
        table.get_by_role("button", name="Slide 7, The bell").click()
        expect(table).to_be_hidden()
        expect(self.page.locator('.path [data-level="slide"]')).to_contain_text("7 The bell")
