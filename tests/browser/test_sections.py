from playwright.sync_api import expect

from tests.browser.base import BrowserTest


class SectionTest(BrowserTest):
    def test_a_section_is_named_on_its_slide_seen_in_the_overview_and_counted_on_the_lectern(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/?slide=dial-s")
        field = page.get_by_label("Section that begins with this slide")
        field.fill("The dial")
        field.press("Enter")
        self.until(lambda: self.score(show)["slides"]["dial-s"]["opens_section"] == "The dial")
        page.locator("#open-overview").click()
        heading = page.get_by_role("button", name="IV The dial")
        expect(heading).to_contain_text("0:06.0")
        heading.click()
        expect(page.locator('.ov-bar[aria-selected="true"]')).to_have_count(1)
        page.get_by_role("button", name="I The town").click()
        expect(page.locator('.ov-bar[aria-selected="true"]')).to_have_count(2)
        page.goto(f"{self.base}/shows/{show}/lectern?from=men-s")
        page.wait_for_selector(".lectern[data-ready]")
        expect(page.locator("#left")).to_contain_text("left for this section")
        expect(page.locator('#coming [data-opens="The dial"]')).to_have_count(1)

    def test_moving_the_first_slide_away_leaves_the_section_to_the_next_and_undo_brings_it_back(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/?slide=esc-s")
        opens = lambda: {key: line["opens_section"] for key, line in self.score(show)["slides"].items() if line["opens_section"]}  # noqa: E731
        before = opens()
        page.get_by_role("button", name="Move the slide earlier").click()
        self.until(lambda: opens().get("two-s") == "How it keeps time" and "esc-s" not in opens())
        page.keyboard.press("Control+z")
        self.until(lambda: opens() == before)
