"""A lesson of six slides in three parts, each slide with its picture: at most 40 acts."""

from playwright.sync_api import expect

from tests.browser.jobs.hand import FingerHand, JobTest, KeysHand
from tests.browser.test_stage import png

PARTS = {
    "The rope": ("Thirty-one metres", "Seventy-eight turns"),
    "The wheel": ("Thirty teeth", "One at a time"),
    "The dial": ("Two hands", "Gold leaf"),
}


def outline() -> bytes:
    lines = ["# How a tower clock works"]
    for part, slides in PARTS.items():
        lines.append(f"\n# {part}")
        lines.extend(f"\n## {heading}\n\nWhat the winders say of it." for heading in slides)
    return "\n".join(lines).encode()


class LessonInPartsTest(JobTest):
    def test_an_outline_becomes_a_lesson_in_parts_and_each_slide_gets_its_picture(self) -> None:
        page, hand = self.page, self.hand
        page.goto(f"{self.base}/shows/start")
        hand.files(
            page.get_by_text("Choose an outline"),
            {"name": "lesson.md", "mimeType": "text/markdown", "buffer": outline()},
        )
        page.wait_for_selector(".theatre [data-object]")
        show = page.url.split("/shows/")[1].split("?")[0].rstrip("/")
        opened = [line["opens_section"] for line in self.lines(show) if line["opens_section"]]
        self.assertEqual(opened, list(PARTS))
        hand.press(page.locator("#open-overview"))
        hand.pick_bars(page.locator(".ov-bar"), 1, 6)
        hand.choose(page.get_by_label("Layout of the slides"), "Text and picture")
        self.until(lambda: all(line["layout"] == "text and picture" for line in self.lines(show)[1:]))
        hand.close_overview()
        expect(page.locator("#overview")).to_be_hidden()
        pictures = [
            {"name": f"part-{number}.png", "mimeType": "image/png", "buffer": png(900, 700, f"#{number}0{number}080")}
            for number in range(1, 7)
        ]
        for number, line in enumerate(self.lines(show)[1:]):
            hand.next_slide(line["id"])
            place = page.locator('[data-place="picture"]')
            hand.press(place)
            if not number:
                hand.files(page.locator("#shelf label", has_text="Files"), *pictures)
            hand.take(page.locator("#shelf .tile", has_text=f"part-{number + 1}"))
            page.locator("#shelf").wait_for(state="hidden")
            expect(place).to_have_count(0)
            kinds = [item["kind"] for item in self.slide(show, line["id"])["objects"]]
            self.assertIn("picture", kinds)
        self.check_acts(40)

    def lines(self, show: str) -> list[dict[str, str]]:
        score = self.score(show)
        return [score["slides"][slide] for slide in score["order"]]


class LessonInPartsByFingerTest(LessonInPartsTest):
    hand_class = FingerHand


class LessonInPartsByKeysTest(LessonInPartsTest):
    hand_class = KeysHand
