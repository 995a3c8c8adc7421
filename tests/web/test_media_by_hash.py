"""A file is its maker's, also for whoever knows its hash."""

from typing import Any

from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile

from ritornel.demo.orlmere import media, orlmere
from ritornel.web.people.models import Invitation
from ritornel.web.shows.blank import blank_show
from ritornel.web.shows.models import Show
from ritornel.web.shows.services import create_rows, keep_media, media_path
from tests.web.base import WebTest


class MediaByHashTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        create_rows(Show(id="own", owner=self.odo), blank_show("own", "Odo's own"))
        self.asset = next(asset for asset in self.score()["assets"] if asset["id"] == "noon")
        self.client.force_login(self.odo)

    def add(self, path: str = "edit", **changes: Any) -> Any:
        fields = ("id", "name", "sha256", "media_type", "size_bytes", "width_px", "height_px", "lasts_ms")
        asset = {**{name: self.asset[name] for name in fields}, **changes}
        return self.post(f"/shows/own/{path}", {"revision": 0, "edit": {"do": "add assets", "assets": [asset]}})

    def open_to_odo(self, role: str) -> None:
        Invitation.objects.all().delete()
        Invitation.objects.create(
            show=self.row,
            by=self.ines,
            address="odo@orlmere.example",
            role=role,
            person=self.odo,
            accepted_at="2026-11-01T00:00Z",
        )

    def test_a_known_hash_gives_nobody_a_file_and_tells_nobody_whether_it_exists(self) -> None:
        for path in ("edit", "would"):
            there, nowhere = self.add(path), self.add(path, sha256="ab" * 32)
            self.assertEqual((there.status_code, nowhere.status_code), (400, 400))
            self.assertEqual(there.json(), nowhere.json())
            self.assertIn("There is no file for “The tower at noon” on a shelf of yours.", there.json()["error"])
        for edit in (
            {
                "do": "several",
                "label": "x",
                "edits": [{"do": "add assets", "assets": [{**self.asset_fields(), "id": "x"}]}],
            },
            {"do": "put greeting", "stem": "x", "asset": self.asset_fields(), "where": "before"},
            {"do": "put recorded", "slide_id": "s", "stem": "x", "asset": self.asset_fields()},
        ):
            self.assertEqual(self.post("/shows/own/edit", {"revision": 0, "edit": edit}).status_code, 400)
        self.assertEqual(self.client.get("/shows/own/media/noon").status_code, 404)
        self.assertEqual(Show.objects.get(pk="own").revision, 0)

    def asset_fields(self) -> dict[str, Any]:
        return {
            name: self.asset[name]
            for name in ("id", "name", "sha256", "media_type", "size_bytes", "width_px", "height_px", "lasts_ms")
        }

    def test_who_may_see_a_show_that_holds_it_may_add_it_as_what_it_is(self) -> None:
        self.open_to_odo("record")
        self.assertEqual(self.add().status_code, 400, "who records a section does not see all of it")
        self.open_to_odo("watch")
        for lie in ({"lasts_ms": 3_600_000}, {"width_px": 9}, {"size_bytes": 1}, {"media_type": "image/png"}):
            self.assertEqual(self.add(**lie).status_code, 400, lie)
        self.assertEqual(self.add().status_code, 200)
        self.assertEqual(self.client.get("/shows/own/media/noon").status_code, 200)

    def test_absurd_lengths_are_refused(self) -> None:
        for lie in ({"lasts_ms": 10**12}, {"lasts_ms": -1}, {"width_px": 10**9}, {"size_bytes": 0}):
            reply = self.add(**lie)
            self.assertEqual(reply.status_code, 400)
            self.assertIn(next(iter(lie)), reply.json()["field"])


class DamagedStoreTest(WebTest):
    """Files that a kill, a full disk or a power cut has left broken."""

    def picture(self) -> tuple[str, bytes]:
        asset, data = next((asset, data) for asset, data in media().values() if asset.id == "noon")
        return asset.sha256, data

    def test_what_lies_there_broken_is_replaced_when_the_file_comes_again(self) -> None:
        sha256, data = self.picture()
        for broken in (data[:1000], b"", bytes(len(data))):
            media_path(sha256).write_bytes(broken)
            keep_media(sha256, data)
            self.assertEqual(media_path(sha256).read_bytes(), data)

    def test_content_that_is_not_what_its_name_says_is_never_kept(self) -> None:
        from ritornel.core.errors import BadMedia

        with self.assertRaises(BadMedia):
            keep_media("ab" * 32, b"something else")
        self.assertFalse(media_path("ab" * 32).exists())
        self.assertEqual(list(media_path("ab" * 32).parent.iterdir()), [])

    def test_a_kill_while_it_is_written_leaves_nothing_that_could_be_taken_for_it(self) -> None:
        from unittest import mock

        sha256, data = self.picture()
        media_path(sha256).unlink()
        with (
            mock.patch("ritornel.web.config.atomic_files.Path.replace", side_effect=KeyboardInterrupt),
            self.assertRaises(KeyboardInterrupt),
        ):
            keep_media(sha256, data)
        self.assertFalse(media_path(sha256).exists())
        keep_media(sha256, data)
        self.assertEqual(media_path(sha256).read_bytes(), data)

    def test_the_check_and_the_archive_tell_a_damaged_medium_and_adding_it_again_heals_it(self) -> None:
        sha256, data = self.picture()
        for broken, words in ((data[:1000], "is damaged"), (None, "is missing")):
            media_path(sha256).unlink()
            if broken is not None:
                media_path(sha256).write_bytes(broken)
            findings = [
                entry
                for entry in self.client.get("/shows/clock/checks.json").json()["findings"]
                if entry["check"] == "missing"
            ]
            self.assertIn(words, findings[0]["title"])
            self.assertEqual(findings[0]["asset_id"], "noon")
            archive = self.client.get("/shows/clock/archive", follow=True)
            self.assertContains(archive, words)

            def again(content):
                return self.client.post(
                    "/shows/clock/media/noon/again", {"file": SimpleUploadedFile("noon.jpg", content)}
                )

            other = next(content for asset, content in media().values() if asset.id == "dial")
            refused = again(other)
            self.assertEqual((refused.status_code, "is another file" in refused.json()["error"]), (400, True))
            self.assertEqual(again(data).status_code, 200)
            self.assertEqual(media_path(sha256).read_bytes(), data)
            findings = [
                entry
                for entry in self.client.get("/shows/clock/checks.json").json()["findings"]
                if entry["check"] == "missing"
            ]
            self.assertEqual(findings, [])

    def test_one_that_has_the_right_size_and_wrong_bytes_is_found_when_it_is_archived(self) -> None:
        sha256, data = self.picture()
        media_path(sha256).write_bytes(bytes(len(data)))
        self.assertContains(self.client.get("/shows/clock/archive", follow=True), "is damaged")
        self.assertEqual(User.objects.count(), 2)
        self.assertEqual(len(orlmere().slides), 9)
