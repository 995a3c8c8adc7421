"""Somebody signs in, sees no show, and does five acts: the show is out, in at most 30 acts of hand."""

from typing import Any

from playwright.sync_api import expect

from tests.browser.base import browser
from tests.browser.jobs.hand import Hand, JobTest


class FirstShowTest(JobTest):
    def setUp(self) -> None:
        super().setUp()
        self.program.manage(
            "from django.contrib.auth.models import User; User.objects.filter(username='newcomer').delete(); "
            "User.objects.create_user('newcomer', password='wound on Saturdays')"
        )
        context = browser().new_context(viewport={"width": 1280, "height": 800})
        self.addCleanup(context.close)
        self.page = context.new_page()
        self.hand = Hand(self.page)

    def acts(self) -> Any:
        return self.page.get_by_role("region", name="Your first show")

    def expect_done(self, count: int) -> None:
        expect(self.acts().locator("li[data-done]")).to_have_count(count)

    def test_five_acts_are_done_as_they_are_told_and_each_is_noticed(self) -> None:
        page, hand = self.page, self.hand
        page.goto(f"{self.base}/sign-in/")
        page.get_by_label("name").first.fill("newcomer")
        page.locator("[name=password]").fill("wound on Saturdays")
        page.get_by_role("button", name="Sign in").click()
        expect(page.locator(".example svg image, .example svg path").first).to_be_attached()
        hand.press(page.get_by_role("button", name="Make your first show"))
        page.wait_for_selector(".theatre [data-object]")
        hand.key("PageDown")
        expect(self.acts()).to_contain_text("Press the wheel on the stage")
        hand.press(page.locator('.theatre [data-object="wheel-wheel"]'))
        hand.press(page.locator(".panel").get_by_role("button", name="Settle", exact=True))
        self.expect_done(1)
        expect(self.acts()).to_contain_text("Give the words beside it a build too")
        hand.press(page.locator('.theatre [data-object="wheel-words"]'))
        hand.press(page.locator(".panel").get_by_role("button", name="Fade", exact=True))
        self.expect_done(2)
        hold: Any = page.locator('.score [data-drag="hold"]').first
        box = hold.bounding_box()
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(box["x"] + 60, box["y"] + box["height"] / 2, steps=4)
        page.mouse.up()
        hand.acts += 1
        self.expect_done(3)
        hand.press(page.locator("[data-tray=music]"))
        hand.press(page.locator("#tray .sound").get_by_role("button", name="whole show"))
        self.expect_done(4)
        hand.press(page.get_by_role("link", name="Release"))
        hand.press(page.locator("#make-edition"))
        hand.press(page.get_by_role("button", name="Anyone with the address"))
        self.expect_done(5)
        expect(self.acts()).to_contain_text("All five are done")
        self.check_acts(30)
