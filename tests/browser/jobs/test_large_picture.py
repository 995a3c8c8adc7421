"""A large picture with five framings, two placed pictures and a clip: at most 30 acts."""

from tests.browser.jobs.hand import FingerHand, JobTest, KeysHand
from tests.footage import footage

PLACES = ((0.25, 0.25), (0.75, 0.25), (0.25, 0.75), (0.75, 0.75))


class LargePictureTest(JobTest):
    def test_the_view_flies_over_a_large_picture_with_two_more_and_a_clip_on_it(self) -> None:
        show, hand = self.compose("esc-s"), self.hand
        before = self.score(show)["order"]
        self.new_slide("picture")
        new = self.until(lambda: next((slide for slide in self.score(show)["order"] if slide not in before), None))
        hand.press(self.page.locator('[data-place="picture"]'))
        self.from_shelf()
        hand.press(self.page.locator('.path [data-level="slide"]'))
        hand.press(self.page.get_by_role("tab", name="Slide"))
        hand.press(self.button("Larger than the frame"))
        hand.press(self.button("Twice as large"))
        self.until(lambda: self.slide(show, new)["size"])
        for number in range(5):
            hand.press(self.button("Another framing" if number else "Framing"))
            self.until(lambda: len(self.slide(show, new)["framings"]) == number + 1)  # noqa: B023
            if number:
                hand.place_framing(self.page.locator(".framing-tag rect").last, *PLACES[number - 1])
        for _ in range(2):
            hand.press(self.page.locator("#open-pictures"))
            self.from_shelf()
        hand.press(self.page.locator("#open-clips"))
        swing = {"name": "swing.mp4", "mimeType": "video/mp4", "buffer": footage(30)}
        hand.files(self.page.locator("#shelf label", has_text="Files"), swing)
        self.until(lambda: len(self.slide(show, new)["objects"]) == 4)
        kinds = sorted(item["kind"] for item in self.slide(show, new)["objects"])
        self.assertEqual(kinds, ["clip", "picture", "picture", "picture"])
        views = [build for build in self.slide(show, new)["order"] if build["effect"] == "views fly"]
        self.assertEqual(len(views), 5)
        self.check_acts(30)

    def from_shelf(self) -> None:
        shelf = self.page.locator("#shelf")
        self.hand.take(shelf.locator(".tile").first)
        shelf.wait_for(state="hidden")


class LargePictureByFingerTest(LargePictureTest):
    hand_class = FingerHand


class LargePictureByKeysTest(LargePictureTest):
    hand_class = KeysHand
