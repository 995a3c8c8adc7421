"""Whom slides are given to: said in Compose, seen on the score, the overview, the Lectern, Record and People."""

from playwright.sync_api import expect

from tests.browser.test_stage import StageTest


class GivenTest(StageTest):
    def test_a_slide_and_a_section_are_given_to_people_and_everybody_sees_whose_they_are(self) -> None:
        page, show = self.page, self.compose("esc-s")
        self.at_tab("Slide")
        whom = page.get_by_label("Whom the slide is given to")
        whom.fill("Odo Lint")
        whom.press("Enter")
        self.until(lambda: self.slide(show, "esc-s")["given_to"] == "Odo Lint")
        expect(page.locator(".score")).to_contain_text("Odo Lint")
        page.get_by_role("button", name="Overview").click()
        page.locator('.ov-bar[data-slide="men-s"]').click()
        page.locator('.ov-bar[data-slide="dial-s"]').click(modifiers=["Shift"])
        page.get_by_label("Whom the slides are given to").fill("Tamsin Roake")
        page.get_by_label("Whom the slides are given to").press("Enter")
        expect(page.locator('.ov-bar[data-slide="dial-s"]')).to_contain_text("Tamsin Roake")
        page.goto(f"{self.base}/shows/{show}/people")
        expect(page.locator("#given")).to_have_text("Also given: slides 3 to Odo Lint; slides 5–6 to Tamsin Roake.")
        page.goto(f"{self.base}/shows/{show}/record")
        expect(page.locator("#sections")).to_contain_text("Tamsin Roake")
        page.goto(f"{self.base}/shows/{show}/lectern?from=esc-s")
        expect(page.locator("#now-name")).to_contain_text("Odo Lint")
        performance = page.request.get(f"{self.base}/shows/{show}/performance.json").text()
        self.assertIn("Odo Lint", performance, "the presenter's own")
