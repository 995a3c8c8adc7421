"""Paragraphs that come between pictures, with a narration that gives the cues: at most 40 acts."""

from playwright.sync_api import expect

from tests.browser.jobs.hand import FingerHand, JobTest, KeysHand
from tests.browser.jobs.test_photo_show import hum


class ParagraphsBetweenPicturesTest(JobTest):
    def test_paragraphs_and_pictures_take_turns_and_a_voice_gives_the_cues(self) -> None:
        page, hand, show = self.page, self.hand, self.compose("esc-s")
        before = self.score(show)["order"]
        self.new_slide("heading and text")
        new = self.until(lambda: next((slide for slide in self.score(show)["order"] if slide not in before), None))
        hand.press(page.locator('[data-place="words"]'))
        hand.type("The rope\nThe teeth\nThe dial")
        hand.leave_words()
        effects = page.get_by_role("group", name="Effect")
        hand.press(self.button("Fade", effects))
        hand.press(self.button("Each paragraph"))
        self.until(lambda: len(self.slide(show, new)["order"]) == 3)
        for number in range(2):
            hand.press(page.locator("#open-pictures"))
            tile = page.locator("#shelf .tile").nth(number)
            name = tile.locator("b").text_content() or ""
            hand.take(tile)
            page.locator("#shelf").wait_for(state="hidden")
            self.until(lambda: len(self.slide(show, new)["objects"]) == number + 2)  # noqa: B023
            expect(page.get_by_label("Name of the object")).to_have_value(name)
            hand.press(self.button("Fade", effects))
            self.until(lambda: len(self.slide(show, new)["order"]) == number + 4)  # noqa: B023
        hand.press(page.locator('.path [data-level="slide"]'))
        rows, waits = page.locator(".order .entry"), page.locator(".order .beat")
        expect(rows).to_have_count(5)
        for picture, wait in ((3, 2), (4, 4)):

            def it_has_its_cue(at: int = wait - 1) -> bool:
                build = self.slide(show, new)["order"][at]
                return not build.get("part") and build["starts"]["rule"] == "cue"

            hand.move_row(rows.nth(picture), waits.nth(wait), down=0.2, done=it_has_its_cue)
            self.until(it_has_its_cue)
            page.wait_for_selector(f'#compose[data-revision="{self.score(show)["revision"]}"]')
            expect(page.locator(".order .dragged, .order .would-open")).to_have_count(0)
        self.assertEqual({build["starts"]["rule"] for build in self.slide(show, new)["order"]}, {"cue"})
        parts = [bool(build["part"]) for build in self.slide(show, new)["order"]]
        self.assertEqual(parts, [True, False, True, False, True])
        hand.press(page.get_by_role("tab", name="Voice"))
        hand.files(page.get_by_text("A voice file"), {"name": "noon.wav", "mimeType": "audio/wav", "buffer": hum()})
        self.until(lambda: self.slide(show, new).get("voice"))
        hand.press(self.button("Mark by ear"))
        here = page.locator("button", has_text="Here: ")
        for _ in range(5):
            words = here.text_content()
            hand.press(here)
            expect(page.get_by_text(words or "", exact=True)).to_have_count(0)
        self.until(lambda: len(self.slide(show, new)["voice"].get("marks") or {}) == 5)
        self.check_acts(40)


class ParagraphsBetweenPicturesByFingerTest(ParagraphsBetweenPicturesTest):
    hand_class = FingerHand


class ParagraphsBetweenPicturesByKeysTest(ParagraphsBetweenPicturesTest):
    hand_class = KeysHand
