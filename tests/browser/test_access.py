"""No page, and no state of a panel, a tray or a dialog, has what axe-core calls a violation: of WCAG 2.0 to 2.2, A and
AA, nor of what it calls good practice. axe-core comes with axe-playwright-python.
"""

from pathlib import Path
from typing import Any

import axe_playwright_python
from playwright.sync_api import expect

from tests.browser.test_stage import StageTest

AXE = Path(axe_playwright_python.__file__).parent / "axe.min.js"
RUN = """async (within) => {
  const { violations } = await axe.run(within, { resultTypes: ["violations"], iframes: false });
  return violations.flatMap(({ id, nodes }) => nodes.slice(0, 3).map(({ html }) => [id, html.slice(0, 160)]));
}"""
SLIDE_TABS = ("Running order", "Slide", "Notes", "Voice")
SHOW_TABS = ("How it runs", "Defaults", "Frame and footer")
OBJECT_TABS = ("Builds", "Look", "Place", "When pressed")


class AccessTest(StageTest):
    maxDiff = None

    def setUp(self) -> None:
        super().setUp()
        self.states: list[str] = []
        self.found: list[tuple[str, str, str]] = []

    def look(self, state: str, within: str = "html") -> None:
        """What axe finds on the page as it is now, or in the part of it that is new."""
        if not self.page.evaluate("() => Boolean(window.axe)"):
            self.page.evaluate(AXE.read_text())
        result: Any = self.page.evaluate(RUN, within)
        self.states.append(state)
        self.found += [(state, rule, html) for rule, html in result]

    def check(self, least: int) -> None:
        """Nothing was found, in so many states at least."""
        self.assertEqual(self.found, [])
        self.assertGreaterEqual(len(self.states), least, self.states)

    def tab(self, name: str) -> None:
        tab = self.page.locator("#panel").get_by_role("tab", name=name, exact=name == "Slide")
        tab.click()
        expect(tab).to_have_attribute("aria-selected", "true")

    def test_the_panel_of_a_slide_and_of_the_show_in_every_state(self) -> None:
        self.compose("esc-s")
        page = self.page
        for name in SLIDE_TABS:
            self.tab(name)
            self.look(f"slide, {name}", "#panel")
        for row in ("Transition", "Goes on"):
            self.at_passage(row)
            self.look(row, "#panel")
        self.at_tab("Running order")
        page.locator(".order .entry .who").first.click()
        self.look("a picked build", "#panel")
        page.locator(".fold-head").click()
        self.look("the list of objects")
        page.locator(".fold-head").click()
        self.at_show()
        for name in SHOW_TABS:
            self.tab(name)
            self.look(f"show, {name}", "#panel")
        page.locator(".score [data-pick=span]").first.click()
        self.look("music", "#panel")
        self.at_tab("Slide")
        page.get_by_role("button", name="Larger than the frame").click()
        self.look("a larger slide, offered")
        page.get_by_role("button", name="Twice as large").click()
        page.get_by_role("button", name="Framing", exact=True).click()
        expect(page.get_by_label("Name of the framing")).to_be_visible()
        self.look("a framing", "#panel")
        self.check(14)

    def test_the_panel_of_every_kind_of_object(self) -> None:
        self.compose("esc-s")
        page = self.page
        for object_id in ("ticks", "pin"):
            self.pick(object_id)
            for name in OBJECT_TABS:
                self.tab(name)
                self.look(f"{object_id}, {name}", "#panel")
        self.pick("ticks", "pin")
        self.look("several objects")
        page.goto(page.url.replace("esc-s", "dial-s"))
        page.wait_for_selector('.theatre [data-object="dial-p"]')
        self.pick("dial-p")
        for name in OBJECT_TABS:
            self.tab(name)
            self.look(f"a picture, {name}", "#panel")
        page.goto(f"{self.base}/shows/pendulum/?slide=ask-s")
        page.wait_for_selector(".theatre [data-object] video, .theatre video")
        clip = next(item for item in self.slide("pendulum", "ask-s")["objects"] if item["kind"] == "clip")
        page.locator(".fold-head").click()
        page.locator(f'.objects [data-listed="{clip["id"]}"] .who').first.click()
        for name in OBJECT_TABS:
            self.tab(name)
            self.look(f"a clip, {name}", "#panel")
        page.locator('[data-add="table"]').click()
        page.wait_for_selector(".words-field:focus")
        self.look("a table that is written")
        page.keyboard.type("Bell")
        page.keyboard.press("Escape")
        self.tab("Look")
        self.look("a table, Look", "#panel")
        self.check(19)

    def test_what_opens_over_compose(self) -> None:
        self.compose("esc-s")
        page = self.page
        for button, close in (("#open-themes", "Close the themes"), ("#open-shelf", "Close the shelf")):
            page.locator(button).click()
            expect(page.locator(".over-stage:not([hidden])")).to_be_visible()
            self.look(button)
            if button == "#open-shelf":
                page.locator('[data-asset="bell"]').click()
                self.look("an entry of the shelf")
                page.get_by_role("button", name="Catalogue").click()
                self.look("the catalogue")
                page.keyboard.press("Escape")
            if page.get_by_label(close).is_visible():
                page.get_by_label(close).click()
        for tray in ("slide", "shape", "music"):
            page.locator(f'[data-tray="{tray}"]').click()
            self.look(f"tray {tray}")
            page.locator(f'[data-tray="{tray}"]').click()
        page.locator('[data-add="text"]').click()
        expect(page.locator(".words-bar")).to_be_visible()
        self.look("writing")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Overview").click()
        expect(page.locator(".ov-bar").first).to_be_visible()
        self.look("overview")
        page.locator(".ov-bar").first.click()
        page.locator(".ov-bar").nth(2).click(modifiers=["Shift"])
        self.look("several slides")
        page.keyboard.press("Escape")
        page.locator("#bring-recorded").click()
        page.locator(".clip-recorder").wait_for()
        self.look("the recorder")
        page.keyboard.press("Escape")
        page.locator(".score-names").get_by_role("button", name="What the signs mean").click()
        self.look("the key of the score")
        page.keyboard.press("Escape")
        page.locator("#play-others summary").click()
        self.look("the menu of playing")
        page.keyboard.press("Escape")
        page.keyboard.press("?")
        self.look("the keys")
        page.keyboard.press("Escape")
        self.right_menu()
        self.look("the menu of the stage")
        self.check(15)

    def right_menu(self) -> None:
        x, y = self.at('.theatre [data-object="ticks"] text')
        self.page.mouse.click(x, y, button="right")
        expect(self.page.get_by_role("menu")).to_be_visible()

    def test_every_other_page(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        ways = (
            "rehearse",
            "release",
            "play?mode=on cue",
            "record",
            "people",
            "comments",
            "lectern",
            "house",
            "history",
            "bin",
        )
        addresses = ["/", "/shows/start", "/shows/start?starter=lesson", "/mail/", "/account/", "/handed-in/", "/bin/"]
        addresses += ["/help/", "/help/compose", "/help/?q=hold"]
        for address in (*addresses, *(f"/shows/{show}/{way}" for way in ways)):
            page.goto(self.base + address)
            page.wait_for_load_state("load")
            self.look(address)
        page.goto(f"{self.base}/shows/{show}/release")
        page.get_by_role("button", name="Make edition 1").click()
        self.look("who may see it")
        page.get_by_role("button", name="Anyone with the address").click()
        expect(page.get_by_role("heading", name="Edition 1")).to_be_visible()
        self.look("an edition")
        released = page.get_by_role("textbox", name="Address").input_value()
        page.goto(f"{self.base}/shows/{show}/lectern")
        page.wait_for_selector(".lectern[data-ready]")
        page.keyboard.press("Space")
        self.look("a run")
        page.keyboard.press("?")
        self.look("the keys of the Lectern")
        page.goto(released)
        page.wait_for_selector(".house[data-running]")
        self.look("a release")
        page.goto(f"{released.rstrip('/')}/transcript")
        expect(page.get_by_role("heading", level=2).first).to_be_visible()
        self.look("a release as text")
        page.context.clear_cookies()
        page.goto(self.base + "/sign-in/")
        self.look("sign-in")
        self.check(27)

    def test_the_first_visit_and_the_first_show(self) -> None:
        self.program.manage(
            "from django.contrib.auth.models import User; User.objects.filter(username='looker').delete(); "
            "User.objects.create_user('looker', password='wound on Saturdays')"
        )
        page = self.page
        page.context.clear_cookies()
        page.goto(self.base + "/sign-in/")
        page.fill("[name=username]", "looker")
        page.fill("[name=password]", "wound on Saturdays")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("button", name="Pause")).to_be_visible()
        self.look("no shows yet")
        page.get_by_role("button", name="Make your first show").click()
        expect(page.get_by_role("region", name="Your first show").locator("li").first).to_be_visible()
        self.look("the first show")
        self.check(2)

    def test_compose_on_a_phone(self) -> None:
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.compose("esc-s")
        self.look("details")
        self.page.get_by_role("navigation", name="Below the stage").get_by_role("button", name="Score").click()
        expect(self.page.locator("#score")).to_be_visible()
        self.look("score")
        self.check(2)
