import hashlib
import io
import json
import tempfile
import wave
import zipfile
from collections.abc import Callable
from pathlib import Path
from unittest import mock

import numpy as np
from django.test import SimpleTestCase
from PIL import Image

from ritornel.core.document import Transition
from ritornel.core.errors import BadArchive, BadMedia, BadValue
from ritornel.core.formats.archive import read_archive, read_show_json, show_json, write_archive
from ritornel.core.formats.media import Limits, probe_medium
from ritornel.core.formats.pictures import show_from_pictures
from ritornel.core.formats.reference import reference
from ritornel.demo.orlmere import FILES, MEDIA, orlmere
from tests.examples import example_a

SMALL = Limits(file_bytes=100_000, picture_pixels=10_000)


def png(width: int = 40, height: int = 30, mode: str = "RGB") -> bytes:
    out = io.BytesIO()
    Image.new(mode, (width, height), 0).save(out, "PNG" if mode != "CMYK" else "TIFF")
    return out.getvalue()


def wav(seconds: float = 0.5) -> bytes:
    out = io.BytesIO()
    with wave.open(out, "wb") as sound:
        sound.setnchannels(1)
        sound.setsampwidth(2)
        sound.setframerate(8000)
        sound.writeframes(np.zeros(int(8000 * seconds), dtype="<i2").tobytes())
    return out.getvalue()


class MediaTest(SimpleTestCase):
    def refused(self, data: bytes, words: str, limits: Limits = SMALL) -> None:
        with self.assertRaisesMessage(BadMedia, words):
            probe_medium(data, "tower.png", limits)

    def test_pictures_and_sounds_are_known_by_their_content(self) -> None:
        picture, sound = probe_medium(png(), "wrong.txt", SMALL), probe_medium(wav(), "wrong.png", SMALL)
        self.assertEqual((picture.media_type, picture.width_px, picture.height_px), ("image/png", 40, 30))
        self.assertEqual((sound.media_type, sound.lasts_ms), ("audio/wav", 500))

    def test_bad_files_are_refused_in_a_sentence(self) -> None:
        self.refused(b"", "“tower.png” is empty")
        self.refused(b"just words" * 50, "neither a picture nor a sound")
        self.refused(b"<p>words</p>", "neither a picture nor a sound")
        self.refused(b"x" * 100_001, "at most 0 MB", Limits(file_bytes=100_000))
        self.refused(png(200, 100), "200 × 100 px")
        self.refused(png(1000, 900)[:900], "damaged", Limits())
        self.refused(png(10, 10, "CMYK"), "TIFF")

    def test_a_picture_of_30_000_by_30_000_is_refused_before_it_is_unpacked(self) -> None:
        out = io.BytesIO()
        Image.new("1", (30_000, 30_000)).save(out, "PNG")
        self.refused(out.getvalue(), "900 megapixels; at most 100 can be shown", Limits())

    def test_a_turned_picture_comes_in_upright(self) -> None:
        picture = Image.new("RGB", (40, 20), "red")
        exif = Image.Exif()
        exif[0x0112] = 6
        out = io.BytesIO()
        picture.save(out, "JPEG", exif=exif)
        medium = probe_medium(out.getvalue(), "turned.jpg", SMALL)
        self.assertEqual((medium.width_px, medium.height_px), (20, 40))


class ArchiveTest(SimpleTestCase):
    def setUp(self) -> None:
        self.show = orlmere()
        self.paths = {asset.sha256: MEDIA / FILES[asset.id][0] for asset in self.show.assets}
        self.kept: dict[str, bytes] = {}

    def written(self) -> bytes:
        out = io.BytesIO()
        write_archive(self.show, out, lambda sha256: self.paths[sha256])
        return out.getvalue()

    def read(self, data: bytes) -> object:
        return read_archive(io.BytesIO(data), "x.ritornel", self.kept.__setitem__, Limits())

    def test_one_show_has_one_archive_whenever_it_is_written(self) -> None:
        with mock.patch("zipfile.time.localtime", return_value=(2031, 5, 6, 7, 8, 9, 1, 126, 0)):
            later = self.written()
        self.assertEqual(later, self.written())

    def rewritten(self, change: Callable[[str, bytes], tuple[str, bytes] | None]) -> bytes:
        out = io.BytesIO()
        with zipfile.ZipFile(io.BytesIO(self.written())) as old, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new:
            for name in old.namelist():
                if (entry := change(name, old.read(name))) is not None:
                    new.writestr(*entry)
        return out.getvalue()

    def refused(self, data: bytes, words: str) -> None:
        with self.assertRaisesMessage(BadArchive, words):
            self.read(data)
        self.assertEqual(self.kept, {}, "nothing is kept of a refused archive")

    def with_json(self, change: Callable[[dict], None]) -> bytes:
        def edit(name: str, data: bytes) -> tuple[str, bytes]:
            if name == "show.json":
                body = json.loads(data)
                change(body)
                data = json.dumps(body).encode()
            return name, data

        return self.rewritten(edit)

    def test_a_show_survives_its_archive(self) -> None:
        self.assertEqual(self.read(self.written()), self.show)
        self.assertEqual(set(self.kept), set(self.paths))
        for sha256, data in self.kept.items():
            self.assertEqual(hashlib.sha256(data).hexdigest(), sha256)

    def test_show_json_is_readable_and_versioned(self) -> None:
        body = json.loads(show_json(self.show))
        self.assertEqual(
            (body["schema"], body["version"], body["show"]["title"]), ("ritornel.show", 11, "The Orlmere clock")
        )
        self.assertIn(b"\n", show_json(self.show))

    def test_what_is_no_archive(self) -> None:
        self.refused(b"nothing", "not a Ritornel archive")
        self.refused(self.written()[:5000], "not a Ritornel archive")
        self.refused(
            self.rewritten(lambda name, data: None if name == "show.json" else (name, data)), "has no show.json"
        )

    def test_a_path_that_reaches_outside(self) -> None:
        self.refused(
            self.rewritten(lambda name, data: ("../evil.png", data) if name.endswith(".ogg") else (name, data)),
            "“../evil.png”, which has no place",
        )

    def test_a_zip_bomb(self) -> None:
        self.refused(
            self.rewritten(lambda name, data: (name, b"0" * 30_000_000) if name.endswith(".ogg") else (name, data)),
            "would unpack to 30,000,000 bytes",
        )

    def test_a_missing_medium(self) -> None:
        self.refused(
            self.rewritten(lambda name, data: None if name.endswith(".ogg") else (name, data)),
            "lacks the medium “Winders' waltz”",
        )

    def test_a_medium_that_is_not_what_its_hash_says(self) -> None:
        self.refused(
            self.rewritten(lambda name, data: (name, data + b"x") if name.endswith(".ogg") else (name, data)),
            "not what its hash says",
        )

    def test_version_1_is_read_as_what_it_meant(self) -> None:
        show = example_a()
        body = json.loads(show_json(show))
        body["version"] = 1
        later = {
            "show": ("theme", "furniture"),
            "slide": ("layout", "bare", "links", "unlinks"),
            "asset": ("credit", "alternative", "folder"),
            "object": (
                "place",
                "group",
                "locked",
                "aside",
                "shadow",
                "press",
                "wings",
                "underline",
                "highlight",
                "outline",
                "overflow",
                "tail_x",
                "tail_y",
                "heads",
                "path",
            ),
        }
        for name in later["show"]:
            del body["show"][name]
        for slide in body["show"]["slides"]:
            for name in later["slide"]:
                del slide[name]
            for item in slide["objects"]:
                for name in later["object"]:
                    del item[name]
        self.assertEqual(read_show_json(json.dumps(body).encode(), "old.ritornel"), show)

    def test_a_show_of_version_2_is_read_and_means_the_same(self) -> None:
        def older(body: dict) -> None:
            body["version"] = 2
            for name in ("marks", "habits", "voices_live", "follows_take"):
                body["show"].pop(name, None)
            for slide in body["show"]["slides"]:
                for name in ("size", "framings", "opens_on", "voice"):
                    slide.pop(name, None)

        self.assertEqual(self.read(self.with_json(older)), self.show)

    def test_an_unknown_version(self) -> None:
        self.refused(
            self.with_json(lambda body: body.update(version=99)),
            "version 99 of the archive; this Ritornel reads versions 1 to 11",
        )

    def test_a_field_that_is_wrong_is_named_by_its_path(self) -> None:
        self.refused(
            self.with_json(lambda body: body["show"]["slides"][1]["advance"].update(hold_ms=-4)),
            "at slides[1].advance.hold_ms",
        )
        self.refused(
            self.with_json(lambda body: body["show"]["slides"][0]["order"][0].update(object_id="gone")), "“gone”"
        )


class PicturesTest(SimpleTestCase):
    def test_a_folder_becomes_one_slide_a_picture_in_natural_order(self) -> None:
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            for file in ("10.png", "2.png", "notes.txt"):
                (folder / file).write_bytes(png())
            (folder / "3.png").write_bytes(b"broken")
            (folder / "m.wav").write_bytes(wav())
            show, sources, refused = show_from_pictures(
                folder, "Album", 4000, Transition("dissolve", 500), folder / "m.wav", Limits()
            )
            self.assertEqual([slide.name for slide in show.slides], ["2", "10"])
            self.assertEqual(len(sources), 2)
            self.assertEqual((len(refused), show.music[0].loops), (1, True))

    def test_a_folder_without_pictures_is_told(self) -> None:
        with tempfile.TemporaryDirectory() as name, self.assertRaisesMessage(BadValue, "no pictures that can be used"):
            show_from_pictures(Path(name), "Album", 4000, Transition(), None, Limits())


class ReferenceTest(SimpleTestCase):
    def test_the_documented_format_is_the_codes(self) -> None:
        page = (Path(__file__).parents[3] / "docs" / "formats.md").read_text(encoding="utf-8")
        self.assertEqual(page, reference(), "type: python -m ritornel.core.formats.reference")
        self.assertIn("| `hold_ms` | whole number, 0..86 400 000 or null | `null` |", page)
