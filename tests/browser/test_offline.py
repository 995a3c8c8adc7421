import tempfile
import zipfile
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserTest

ONWARD = """(slide) => {
  if (document.querySelector(".house").dataset.slide === slide) return true;
  dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight" }));
  return false;
}"""


class OfflineTest(BrowserTest):
    """Shows saved to a disk play with the network off."""

    def saved(self, show: str, name: str) -> Path:
        """The show saved into a folder of its own, unpacked where it is packed."""
        folder = Path(tempfile.mkdtemp(prefix="ritornel-offline-"))
        reply = self.page.request.get(f"{self.base}/shows/{show}/{name}")
        self.assertTrue(reply.ok, reply.text()[:400])
        path = folder / name
        path.write_bytes(reply.body())
        if path.suffix == ".zip":
            with zipfile.ZipFile(path) as archive:
                archive.extractall(folder)
            return next(folder.glob("*/index.html"))
        return path

    def opened(self, path: Path) -> Page:
        context = self.new_context()
        context.set_offline(True)
        page = self.new_page(context)
        page.goto(path.as_uri())
        page.wait_for_selector(".house[data-running]")
        return page

    def test_one_file_plays_from_a_disk_with_sound(self) -> None:
        page = self.opened(self.saved("told", "offline.html"))
        expect(page.locator(".house")).to_have_attribute("data-sounds", "11")
        self.assertEqual(
            page.evaluate("() => [...document.fonts].filter((face) => face.status === 'loaded').length > 1"), True
        )
        page.keyboard.press("ArrowRight")
        page.wait_for_selector('.house[data-slide="who-s"]')
        self.assertEqual(
            page.evaluate(
                "() => performance.getEntriesByType('resource').filter(({ name }) => !name.startsWith('data:')).length"
            ),
            0,
        )

    def test_a_folder_plays_its_clips_and_loops(self) -> None:
        show = self.brought_in(self.page.request.get(f"{self.base}/shows/pendulum/archive").body())
        token = next(cookie["value"] for cookie in self.page.context.cookies() if cookie["name"] == "csrftoken")
        body = {"revision": self.score(show)["revision"], "edit": {"do": "change show", "changes": {"end": "loop"}}}
        self.page.request.post(
            f"{self.base}/shows/{show}/edit", data=body, headers={"X-CSRFToken": token, "Referer": self.base}
        )
        path = self.saved(show, "offline.zip")
        self.assertTrue(list((path.parent / "media").glob("*.mp4")))
        page = self.opened(path)
        slides = self.score(show)["order"]
        for slide in (*slides[1:], slides[0]):
            page.wait_for_function(ONWARD, arg=slide, polling=150)
            if slide == slides[1]:
                page.wait_for_function(
                    "() => [...document.querySelectorAll('video')].some((video) => video.readyState >= 2 && "
                    "video.videoWidth)"
                )

    def test_what_it_weighs_is_told_before_it_is_saved(self) -> None:
        page = self.page
        page.goto(f"{self.base}/shows/pendulum/release")
        with page.expect_download() as download:
            page.get_by_role("button", name="One file").click()
        self.assertTrue(download.value.suggested_filename.endswith(".html"))
        expect(page.get_by_role("status").filter(has_text="MB of media")).to_be_visible()
