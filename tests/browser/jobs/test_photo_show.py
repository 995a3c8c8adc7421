"""A show of photographs with music, released: at most 10 acts."""

import io
import wave

from playwright.sync_api import expect

from tests.browser.jobs.hand import FingerHand, JobTest, KeysHand
from tests.browser.test_stage import png


def hum() -> bytes:
    """Two seconds of a quiet tone."""
    out = io.BytesIO()
    with wave.open(out, "wb") as file:
        file.setnchannels(1)
        file.setsampwidth(2)
        file.setframerate(8000)
        file.writeframes(b"".join(((n % 40) * 200).to_bytes(2, "little") for n in range(16_000)))
    return out.getvalue()


class PhotoShowTest(JobTest):
    def test_pictures_become_a_show_with_music_that_others_can_open(self) -> None:
        self.page.goto(f"{self.base}/shows/start")
        pictures = [
            {"name": f"tower-{number}.png", "mimeType": "image/png", "buffer": png(900, 600, f"#{number}{number}4060")}
            for number in range(1, 7)
        ]
        self.hand.files(self.page.get_by_text("Choose pictures"), *pictures)
        self.hand.press(self.page.locator("#from-pictures button").last)
        self.page.wait_for_selector(".theatre [data-object]")
        self.hand.press(self.page.locator('[data-tray="music"]'))
        self.hand.files(
            self.page.locator(".tray").get_by_text("A file"),
            {"name": "hum.wav", "mimeType": "audio/wav", "buffer": hum()},
        )
        self.page.locator(".score [data-pick=span]").first.wait_for()
        self.hand.press(self.page.get_by_role("link", name="Release"))
        self.hand.press(self.button("Make edition 1"))
        self.hand.press(self.button("Anyone with the address"))
        expect(self.page.get_by_role("heading", name="Edition 1")).to_be_visible()
        self.check_acts(10)


class PhotoShowByFingerTest(PhotoShowTest):
    hand_class = FingerHand


class PhotoShowByKeysTest(PhotoShowTest):
    hand_class = KeysHand
