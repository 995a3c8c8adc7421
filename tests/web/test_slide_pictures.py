from unittest import mock

from ritornel.core.errors import DiskFull
from ritornel.web.library import slide_pictures
from ritornel.web.shows import starting
from tests.web.base import WebTest


class SlidePicturesTest(WebTest):
    def address(self, slide: str = "who-s") -> str:
        return str(self.score()["slides"][slide]["thumb"])

    def drawn(self) -> mock.Mock:
        """Counts what is drawn."""
        patcher = mock.patch.object(slide_pictures, "png_of", side_effect=slide_pictures.png_of)
        self.addCleanup(patcher.stop)
        return patcher.start()

    def test_a_slide_s_picture_is_drawn_once_and_anew_when_it_changes(self) -> None:
        draws, address = self.drawn(), self.address()
        first, second = self.client.get(address).content, self.client.get(address).content
        self.assertEqual((first == second, first[:4], draws.call_count), (True, b"\x89PNG", 1))
        self.client.get(f"{address}?size=large")
        self.assertEqual(draws.call_count, 2)
        self.edit(
            {
                "do": "change slides",
                "slide_ids": ["who-s"],
                "changes": {"background": {"kind": "plain", "colour": "#102030"}},
            }
        )
        self.assertFalse(self.client.get(self.address()).content == first)
        self.assertEqual(draws.call_count, 3)
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"notes": "Say nothing"}})
        self.client.get(self.address())
        self.assertEqual(draws.call_count, 3)

    def test_on_a_full_disk_it_is_drawn_every_time(self) -> None:
        draws = self.drawn()
        with mock.patch.object(slide_pictures, "atomic_file", side_effect=DiskFull("The server's disk is full.")):
            found = [self.client.get(self.address()).content for _ in range(2)]
        self.assertEqual((found[0] == found[1], draws.call_count), (True, 2))

    def test_a_starter_s_picture_is_drawn_once_for_all_processes(self) -> None:
        with mock.patch.object(starting, "png_of", side_effect=starting.png_of) as draws:
            pages = [self.client.get("/starters/lesson/0.png") for _ in range(2)]
        self.assertEqual([page.status_code for page in pages], [200, 200])
        self.assertEqual(draws.call_count, 1)
        self.assertTrue(list((self.var / "derived" / "slides").rglob("*-0.png")))
