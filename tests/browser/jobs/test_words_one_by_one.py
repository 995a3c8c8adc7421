"""Lines that come one by one, their order changed, and one transition with a sound for all slides: at most 20 acts."""

from tests.browser.jobs.hand import FingerHand, JobTest, KeysHand


class WordsOneByOneTest(JobTest):
    def test_lines_come_one_by_one_in_another_order_and_all_slides_come_alike(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["order"]
        self.new_slide("heading and text")
        self.hand.press(self.page.locator('[data-place="words"]'))
        self.hand.type("The rope\nThe teeth\nThe dial")
        self.hand.leave_words()
        effects = self.page.get_by_role("group", name="Effect")
        self.hand.press(self.button("Fade", effects))
        self.hand.press(
            self.button("Each paragraph", self.page.get_by_role("group", name="Builds all of it, or each paragraph"))
        )
        new = self.until(lambda: next((slide for slide in self.score(show)["order"] if slide not in before), None))
        self.until(lambda: len(self.slide(show, new)["order"]) == 3)
        self.hand.press(self.page.locator('.path [data-level="slide"]'))
        rows = self.page.locator(".order .entry")

        def last_is_first() -> bool:
            return [build["part"][-1] for build in self.slide(show, new)["order"]] == ["3", "1", "2"]

        self.hand.move_row(rows.nth(2), rows.nth(0), down=0.1, done=last_is_first)
        self.until(last_is_first)
        self.hand.press(self.page.locator(".passage").first)
        self.hand.press(self.button("Push", self.page.get_by_role("group", name="Transition")))
        sound = self.page.get_by_label("Sound of the transition", exact=True)
        self.hand.choose(sound, sound.locator("option").nth(2).text_content() or "")
        self.until(lambda: self.slide(show, new)["transition"]["sound"])
        self.hand.press(self.button("To all slides"))
        own = self.slide(show, new)["transition"]
        self.until(lambda: all(line["transition"] == own for line in self.score(show)["slides"].values()))
        self.check_acts(20)


class WordsOneByOneByFingerTest(WordsOneByOneTest):
    hand_class = FingerHand


class WordsOneByOneByKeysTest(WordsOneByOneTest):
    hand_class = KeysHand
