"""No page has what axe-core calls serious or critical (WCAG 2 A and AA). axe-core comes with axe-playwright-python."""

from pathlib import Path
from typing import Any

import axe_playwright_python
from playwright.sync_api import expect

from tests.browser.base import BrowserTest

AXE = Path(axe_playwright_python.__file__).parent / "axe.min.js"


class AccessTest(BrowserTest):
    def serious(self, where: str) -> list[tuple[str, str, str]]:
        """What axe finds on the page as it is now."""
        self.page.evaluate(AXE.read_text())
        result: dict[str, Any] = self.page.evaluate("axe.run(document, { resultTypes: ['violations'] })")
        return [
            (where, violation["id"], node["html"][:160])
            for violation in result["violations"]
            if violation["impact"] in ("serious", "critical")
            for node in violation["nodes"][:3]
        ]

    def test_composing_in_every_state(self) -> None:
        self.compose("esc-s")
        page = self.page
        found = self.serious("slide")
        page.locator(".fold-head").click()
        page.locator('.theatre [data-object="ticks"] text').first.click()
        found += self.serious("builds of an object")
        for tab in ("Look", "Place"):
            page.get_by_role("tab", name=tab).click()
            found += self.serious(tab)
        page.locator('.theatre [data-object="pin"] path').first.click(modifiers=["Shift"])
        found += self.serious("several objects")
        for button, close in (("#open-themes", "Close the themes"), ("#open-shelf", "Close the shelf")):
            page.locator(button).click()
            expect(page.locator(".over-stage:not([hidden])")).to_be_visible()
            if button == "#open-shelf":
                page.locator('[data-asset="bell"]').click()
            found += self.serious(button)
            page.get_by_label(close).click()
        for tray in ("slide", "shape", "music"):
            page.locator(f'[data-tray="{tray}"]').click()
            found += self.serious(f"tray {tray}")
            page.locator(f'[data-tray="{tray}"]').click()
        page.locator('[data-add="text"]').click()
        expect(page.locator(".words-bar")).to_be_visible()
        found += self.serious("writing")
        self.assertEqual(found, [])

    def test_every_other_page(self) -> None:
        show = self.copy_of_demo()
        found = []
        ways = [
            f"/shows/{show}/{way}"
            for way in ("rehearse", "release", "play?mode=on cue", "record", "people", "comments")
        ]
        for address in ("/", "/shows/start", "/shows/start?starter=lesson", "/mail/", "/account/", *ways):
            self.page.goto(self.base + address)
            self.page.wait_for_load_state("load")
            found += self.serious(address)
        self.page.context.clear_cookies()
        self.page.goto(self.base + "/sign-in/")
        found += self.serious("sign-in")
        self.assertEqual(found, [])
