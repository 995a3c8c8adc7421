"""What lies on the shelves of one's other shows can be brought over; that of strangers is not even told of."""

from typing import Any

from ritornel.core.document.show import Show as ShowValue
from ritornel.web.shows.services import Show, create_rows
from tests.web.base import WebTest


class ElsewhereTest(WebTest):
    def shelves(self, show_id: str) -> list[dict[str, Any]]:
        return self.client.get(f"/shows/{show_id}/shelf/elsewhere.json").json()["shelves"]  # type: ignore[no-any-return]

    def test_entries_of_ones_other_shows_are_told_and_brought_over(self) -> None:
        create_rows(Show(id="bell", owner=self.ines), ShowValue("bell", "The bell"))
        (shelf,) = self.shelves("bell")
        self.assertEqual((shelf["id"], shelf["title"]), ("clock", "The Orlmere clock"))
        waltz = next(entry for entry in shelf["assets"] if entry["kind"] == "sound")
        edit = {"do": "add assets", "assets": [{**waltz["value"], "id": "w"}]}
        reply = self.post("/shows/bell/edit", {"revision": 0, "edit": edit})
        self.assertEqual(reply.status_code, 200, reply.content)
        self.assertEqual(self.client.get("/shows/bell/media/w").status_code, 200)
        left = {entry["name"] for shelf in self.shelves("bell") for entry in shelf["assets"]}
        self.assertNotIn(waltz["name"], left, "what is here already is not offered")

    def test_a_strangers_shelf_is_not_told_of(self) -> None:
        create_rows(Show(id="mine", owner=self.odo), ShowValue("mine", "Mine"))
        self.client.force_login(self.odo)
        self.assertEqual(self.shelves("mine"), [])
