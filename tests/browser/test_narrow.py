"""A tablet on its side and upright, and a phone: nothing is cut off without a way to it, and the work can be done."""

from typing import Any

from playwright.sync_api import expect

from tests.browser.base import Finger
from tests.browser.test_stage import StageTest

SIZES = ((1024, 768), (768, 1024), (390, 844))
FOURFOLD = (320, 256)
"""What is left of 1280 × 1024 at 400 % (WCAG 1.4.10)."""
PAGES = (
    "/",
    "/bin/",
    "/shows/start",
    "/account/",
    "/shows/orlmere/?slide=esc-s",
    "/shows/orlmere/rehearse",
    "/shows/orlmere/record",
    "/shows/orlmere/release",
    "/shows/orlmere/lectern",
    "/shows/orlmere/people",
    "/shows/orlmere/comments",
    "/shows/orlmere/history",
    "/shows/orlmere/bin",
)
LETTERS_PX = "() => parseFloat(getComputedStyle(document.body).fontSize)"
CUT_OFF = """() => {
  const wide = document.documentElement.clientWidth;
  const scrolls = (node) => {
    for (let up = node.parentElement; up; up = up.parentElement) {
      const way = getComputedStyle(up).overflowX;
      if ((way === "auto" || way === "scroll") && up.scrollWidth > up.clientWidth) return true;
    }
    return false;
  };
  return [...document.querySelectorAll("a, button, input, select, textarea, summary")]
    .filter((node) => node.checkVisibility({ checkVisibilityCSS: true, checkOpacity: true }))
    .filter((node) => !node.closest(".sr-only, .score-scroll, [inert]") && !node.matches(".sr-only"))
    .filter((node) => { const box = node.getBoundingClientRect(); return box.width && (box.right > wide + 1 || box.left < -1); })
    .filter((node) => !scrolls(node))
    .map((node) => `${node.tagName} ${node.ariaLabel ?? node.textContent.trim().slice(0, 30)}`);
}"""


class NarrowTest(StageTest):
    def test_on_no_page_is_anything_cut_off_without_a_way_to_it(self) -> None:
        """Neither on a tablet or a phone nor, on pages beside the stage, in a window that is magnified fourfold."""
        for path in PAGES:
            self.page.goto(self.base + path)
            expect(self.page.locator("h1").first).to_be_attached()
            beside = "?slide=" not in path and not path.endswith("/lectern")
            for width, height in (*SIZES, *([FOURFOLD] if beside else [])):
                with self.subTest(path=path, width=width):
                    self.page.set_viewport_size({"width": width, "height": height})
                    self.page.evaluate("() => new Promise((done) => requestAnimationFrame(() => setTimeout(done)))")
                    self.assertEqual(self.page.evaluate(CUT_OFF), [])
                    wide = self.page.evaluate("() => document.scrollingElement.scrollWidth")
                    self.assertLessEqual(wide, width)

    def test_with_larger_letters_in_the_browser_nothing_is_cut_off_either(self) -> None:
        self.page = self.new_page(self.context)
        self.page.goto(self.base)
        before = self.page.evaluate(LETTERS_PX)
        line = self.page.context.new_cdp_session(self.page)
        line.send("Page.setFontSizes", {"fontSizes": {"standard": 20}})
        for path in PAGES[4:9]:
            with self.subTest(path=path):
                self.page.goto(self.base + path)
                expect(self.page.locator("h1").first).to_be_attached()
                self.assertEqual(self.page.evaluate(LETTERS_PX), before * 20 / 16)
                self.assertEqual(self.page.evaluate(CUT_OFF), [])

    def on_a_phone(self) -> str:
        self.page.set_viewport_size({"width": 390, "height": 844})
        show = self.compose("esc-s")
        expect(self.sheet("Details")).to_have_attribute("aria-pressed", "true")
        return show

    def sheet(self, name: str) -> Any:
        return self.page.get_by_role("navigation", name="Below the stage").get_by_role("button", name=name)

    def test_upright_details_and_score_share_the_sheet_below_the_stage(self) -> None:
        self.on_a_phone()
        panel, score = self.page.locator("#panel"), self.page.locator("#score")
        expect(score).to_be_hidden()
        stage, below = (self.page.locator(name).bounding_box() for name in ("main.stage", "#panel"))
        assert stage and below
        self.assertLessEqual(stage["y"] + stage["height"], below["y"])
        self.assertEqual((stage["width"], below["width"]), (390, 390))
        self.sheet("Score").click()
        expect(panel).to_be_hidden()
        expect(score.locator('[data-drag="hold"]').first).to_be_visible()
        self.page.set_viewport_size({"width": 1280, "height": 800})
        expect(panel).to_be_visible()
        expect(score).to_be_visible()
        expect(self.page.locator(".sheet-tabs")).to_be_hidden()

    def test_the_sheet_is_pulled_up_and_down_by_a_finger_and_what_is_taken_away_puts_it_back(self) -> None:
        self.on_a_phone()
        panel = self.page.locator("#panel")

        def height() -> float:
            box = panel.bounding_box()
            assert box is not None
            return box["height"]

        before = height()
        box: Any = self.page.locator("#pull").bounding_box()
        x, y = 300, box["y"] + 20
        finger = Finger(self.page)
        finger.down(x, y)
        finger.move(x, y - 80)
        finger.up()
        self.assertAlmostEqual(height(), before + 80, delta=4)
        finger.down(x, y - 80)
        finger.move(x, y + 20)
        self.page.keyboard.press("Escape")
        finger.up()
        self.assertAlmostEqual(height(), before + 80, delta=4)

    def test_on_a_phone_a_hold_and_text_are_changed(self) -> None:
        show = self.on_a_phone()
        hold = self.page.locator("#panel").get_by_role("textbox", name="Hold").first
        hold.fill("4.1 s")
        hold.press("Enter")
        self.until(lambda: self.score(show)["slides"]["esc-s"]["schedule"]["beats"][1]["wait"]["hold_ms"] == 4100)
        self.page.locator('.theatre [data-object="esc-h"]').dblclick()
        self.page.locator("[contenteditable]").first.press("End")
        self.page.keyboard.type("s")
        self.page.keyboard.press("Escape")
        self.until(
            lambda: "The escapements" in self.page.request.get(f"{self.base}/shows/{show}/slides/esc-s.json").text()
        )

    def test_a_build_goes_earlier_and_later_by_its_buttons_and_they_keep_the_focus(self) -> None:
        show = self.on_a_phone()

        def order() -> list[str]:
            return [build["name"] for build in self.score(show)["slides"]["esc-s"]["builds"]]

        before = order()
        self.assertEqual(before[:2], ["Wheel", "Axle"])
        self.page.locator(".order .entry .who").first.click()
        self.page.get_by_role("button", name="Later: Wheel").click()
        self.until(lambda: order()[:2] == ["Axle", "Wheel"])
        expect(self.page.get_by_role("button", name="Later: Wheel")).to_be_focused()
        self.page.get_by_role("button", name="Earlier: Wheel").click()
        self.until(lambda: order() == before)
