"""A list of ten lines that grows, and a picture that is carried to the next slide: at most 20 acts."""

from playwright.sync_api import expect

from tests.browser.jobs.hand import FingerHand, JobTest, KeysHand

LINES = "\n".join(f"Tooth {number} of the wheel" for number in range(1, 11))


class GrowingListTest(JobTest):
    def test_ten_lines_grow_and_a_picture_is_carried_on(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["order"]
        self.new_slide("text and picture")
        self.hand.press(self.page.locator('[data-place="words"]'))
        self.hand.type(LINES)
        self.hand.leave_words()
        self.hand.press(self.button("Grow line by line, centred"))
        self.hand.press(self.page.locator('[data-place="picture"]'))
        tile = self.page.locator(".shelf-grid .tile").first
        name = tile.locator("b").text_content() or ""
        self.hand.take(tile)
        self.page.locator("#shelf").wait_for(state="hidden")
        # The picture is picked once it is there; until then the text is.
        expect(self.page.get_by_label("Name of the object")).to_have_value(name)
        self.hand.let_go()
        self.hand.copy_slide()
        slides = self.until(lambda: (order := self.score(show)["order"]) and len(order) == len(before) + 2 and order)
        new = [slide for slide in slides if slide not in before]
        self.page.wait_for_url(lambda address: address.endswith(f"slide={new[1]}"))
        self.hand.press(self.page.locator(".passage").first)
        self.hand.press(self.button("Carry", self.page.get_by_role("group", name="Transition")))
        self.until(lambda: self.slide(show, new[1])["transition"]["name"] == "carry")
        builds = self.slide(show, new[0])["order"]
        self.assertEqual(len([build for build in builds if build["part"]]), 10)
        self.assertEqual(len(self.slide(show, new[1])["objects"]), 2)
        self.check_acts(20)


class GrowingListByFingerTest(GrowingListTest):
    hand_class = FingerHand


class GrowingListByKeysTest(GrowingListTest):
    hand_class = KeysHand
