"""Somebody signs in, sees no show, and does five acts: the show is out, in at most 30 acts of hand. The same by keyboard
alone, and by finger on a tablet.
"""

from typing import Any

from playwright.sync_api import Locator, expect

from tests.browser.base import Finger
from tests.browser.jobs.hand import FingerHand, JobTest, KeysHand

PASSWORD = "wound on Saturdays"
HOLD = '.score [data-drag="hold"]'


class FirstShowTest(JobTest):
    """By mouse."""

    def setUp(self) -> None:
        super().setUp()
        self.program.manage(
            "from django.contrib.auth.models import User; User.objects.filter(username='newcomer').delete(); "
            f"User.objects.create_user('newcomer', password='{PASSWORD}')"
        )
        self.page = self.new_page(self.new_context(**(self.hand_class.window or {})))
        self.hand = self.hand_class(self.page)

    def press(self, what: Locator) -> None:
        self.hand.press(what)

    def pick(self, name: str) -> None:
        self.press(self.page.locator(f'.theatre [data-object="{name}"]'))

    def next_slide(self) -> None:
        self.hand.next_slide("wheel")
        expect(self.page.locator('.theatre [data-object="wheel-wheel"]')).to_be_visible()

    def lengthen_hold(self) -> None:
        box: Any = self.page.locator(HOLD).first.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 60, y, steps=4)
        self.page.mouse.up()
        self.hand.acts += 1

    @property
    def acts(self) -> Locator:
        return self.page.get_by_role("region", name="Your first show")

    def expect_done(self, count: int) -> None:
        expect(self.acts.locator("li[data-done]")).to_have_count(count)

    def test_five_acts_are_done_as_they_are_told_and_each_is_noticed(self) -> None:
        page = self.page
        page.goto(f"{self.base}/sign-in/")
        page.locator("[name=username]").fill("newcomer")
        page.locator("[name=password]").fill(PASSWORD)
        page.locator("[name=password]").press("Enter")
        expect(page.locator(".example svg image, .example svg path").first).to_be_attached()
        self.press(page.get_by_role("button", name="Make your first show"))
        page.wait_for_selector(".theatre [data-object]")
        self.next_slide()
        expect(self.acts).to_contain_text("Press the wheel on the stage")
        self.pick("wheel-wheel")
        self.press(page.locator(".panel").get_by_role("button", name="Settle", exact=True))
        self.expect_done(1)
        expect(self.acts).to_contain_text("Give the words beside it a build too")
        self.pick("wheel-words")
        self.press(page.locator(".panel").get_by_role("button", name="Fade", exact=True))
        self.expect_done(2)
        self.lengthen_hold()
        self.expect_done(3)
        self.press(page.locator("[data-tray=music]"))
        self.press(page.locator("#tray .sound").get_by_role("button", name="whole show"))
        self.expect_done(4)
        self.press(page.get_by_role("link", name="Release", exact=True))
        self.press(page.locator("#make-edition"))
        self.press(page.get_by_role("button", name="Anyone with the address"))
        self.expect_done(5)
        expect(self.acts).to_contain_text("All five are done")
        self.check_acts(30)


class FirstShowByFingerTest(FirstShowTest):
    """On a tablet on its side."""

    hand_class = FingerHand

    def lengthen_hold(self) -> None:
        box: Any = self.page.locator(HOLD).first.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        finger = Finger(self.page)
        finger.down(x, y)
        expect(self.page.locator(".number-tag")).to_contain_text("Hold")
        finger.move(x + 60, y)
        finger.up()
        self.hand.acts += 1


class FirstShowByKeysTest(FirstShowTest):
    """By keyboard alone: what is wanted is gone to from region to region and from stop to stop."""

    hand_class = KeysHand

    def to_region(self, region: str) -> None:
        for _ in range(10):
            if self.page.evaluate("(name) => Boolean(document.activeElement.closest(name))", region):
                return
            self.page.keyboard.press("F6")
        raise AssertionError(f"F6 does not lead to {region}")

    def pick(self, name: str) -> None:
        self.to_region(".stage")
        wanted = {"wheel-wheel": "Wheel", "wheel-words": "Words"}[name]
        told = self.page.locator(".path .name-field")
        for _ in range(6):
            self.page.keyboard.press("Alt+ArrowRight")
            told.wait_for()
            if told.input_value() == wanted:
                return
        raise AssertionError(f"{wanted} is not picked by Alt and an arrow")

    def lengthen_hold(self) -> None:
        self.to_region(".score")
        self.page.keyboard.press("ArrowDown")
        place = self.page.locator(".score-place:focus")
        for _ in range(12):
            if str(place.get_attribute("aria-label")).startswith("Wait for cue"):
                break
            self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("Alt+Shift+ArrowRight")
