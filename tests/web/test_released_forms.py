"""Every form in which a show leaves the house, searched for what its maker keeps to themself."""

import base64
import importlib
import io
import json
import re
import zipfile

import msgspec

from ritornel.core.document.decoding import to_json
from ritornel.core.schedule.performance import builtins_of, perform
from ritornel.web.people.models import Comment, Invitation
from ritornel.web.releases.folders import edition_place
from ritornel.web.releases.models import Release
from ritornel.web.shows.models import Show, Slide
from ritornel.web.shows.services import value_of
from tests.core.schedule.test_audience import planted
from tests.web.base import WebTest
from tests.web.editions_of_before import performance_of_before

SECRET = re.compile(rb"SECRET [a-z_]+")


def unpacked(data: bytes) -> bytes:
    """A file with all that lies inside it: the files of an archive, and what is written as data addresses."""
    if data[:2] == b"PK":
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            return b"\n".join(name.encode() + b"\n" + unpacked(archive.read(name)) for name in archive.namelist())
    inside = [
        base64.b64decode(match)
        for match in re.findall(rb"data:[a-z]+/(?!javascript)[a-z+.-]+;base64,([A-Za-z0-9+/=]+)", data)
    ]
    return b"\n".join([data, *inside])


class ReleasedFormsTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        show = value_of(self.row)
        for row, slide in zip(self.row.slides.all(), show.slides, strict=True):
            body = {**planted(msgspec.to_builtins(slide)), "skipped": slide.id == "dial-s"}
            if body["skipped"]:
                for item in body["objects"]:
                    for paragraph in item.get("paragraphs", ()):
                        paragraph["runs"] = [{"text": "SECRET skipped"}]
            Slide.objects.filter(pk=row.pk).update(body=to_json(body))
        for row in self.row.assets.all():
            row.body = to_json(
                {
                    **json.loads(bytes(row.body)),
                    "name": "SECRET original",
                    "author": "SECRET author",
                    "folder": "SECRET folder",
                }
            )
            row.save()
        Comment.objects.create(show=self.row, slide_id="esc-s", person=self.odo, text="SECRET comment")
        Invitation.objects.create(
            show=self.row,
            by=self.ines,
            address="odo@orlmere.example",
            role="watch",
            person=self.odo,
            accepted_at="2026-11-01T00:00Z",
        )
        address = self.post("/shows/clock/editions", {"audience": "anyone"}).json()["address"]
        self.path = "/" + address.split("/", 3)[3]
        self.folder = edition_place(Release.objects.get().address, 1)

    def search(self, name: str, data: bytes) -> None:
        self.assertEqual(sorted(set(SECRET.findall(unpacked(data)))), [], name)

    def test_what_is_planted_is_there_for_the_maker(self) -> None:
        self.assertIn(b"SECRET notes", self.client.get("/shows/clock/performance.json").content)

    def test_an_edition_has_nothing_of_it_in_any_of_its_files(self) -> None:
        names = sorted(path.name for path in self.folder.iterdir())
        self.assertLess({"performance.json", "calm.json", "index.html", "first.webp"}, set(names))
        for name in names:
            self.search(name, (self.folder / name).read_bytes())
        self.client.logout()
        self.search("the page", self.client.get(self.path).content)
        self.search("the performance", self.client.get(self.path + "1/performance.json").content)

    def test_a_file_or_folder_for_a_disk_has_nothing_of_it(self) -> None:
        for name in ("offline.html", "offline.zip", "editions/1.zip"):
            reply = self.client.get(f"/shows/clock/{name}")
            self.assertEqual(reply.status_code, 200)
            data = reply.content if not reply.streaming else b"".join(reply.streaming_content)  # type: ignore[arg-type]
            self.search(name, data)

    def test_the_audiences_screen_has_nothing_of_it(self) -> None:
        code = self.post("/shows/clock/run").json()["house"]["address"].rstrip("/").split("/")[-1]
        self.client.logout()
        for name in ("", "performance.json"):
            self.search(name, self.client.get(f"/house/{code}/{name}").content)

    def test_who_may_watch_has_nothing_of_it(self) -> None:
        self.client.force_login(self.odo)
        for name in ("play", "performance.json"):
            reply = self.client.get(f"/shows/clock/{name}")
            self.assertEqual(reply.status_code, 200)
            self.search(name, reply.content)

    def test_editions_of_before_are_cleaned(self) -> None:
        staged = perform(value_of(Show.objects.get(pk="clock")))
        now = json.loads((self.folder / "performance.json").read_bytes())
        now = performance_of_before(now)
        everything = {**now["media"], "unused": "secret-plan.png"}
        for name in ("performance.json", "calm.json"):
            then = performance_of_before(builtins_of(staged, everything))
            (self.folder / name).write_bytes(to_json(then))
        (self.folder / "secret-plan.png").write_bytes(b"of nothing that is shown")
        migration = importlib.import_module("ritornel.web.releases.migrations.0011_editions_without_notes")
        for _ in range(2):
            migration.clean_folder(self.folder)
            self.assertEqual(json.loads((self.folder / "performance.json").read_bytes()), now)
            self.assertFalse((self.folder / "secret-plan.png").exists())
            for path in self.folder.iterdir():
                self.search(path.name, path.read_bytes())
