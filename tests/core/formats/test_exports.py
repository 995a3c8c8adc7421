"""The formats that shows can be saved in are found by being there."""

import tempfile
from pathlib import Path
from unittest import TestCase, mock

import msgspec

from ritornel.core import formats
from ritornel.core.document.objects import Box, Caption, Clip
from ritornel.core.formats.exports import EXPORTS, _collect_exports, exports_of
from ritornel.demo.orlmere import orlmere
from tests.examples import example_a

NEW = """
from ritornel.core.formats.export import Export

EXPORTS = (
    Export(
        address="titles.txt",
        ending="-titles.txt",
        content_type="text/plain",
        words="Titles",
        about="The names of its slides",
        write=lambda show: "\\n".join(slide.name for slide in show.slides),
        place=0,
    ),
)
"""


class ExportsTest(TestCase):
    def test_each_writes_the_demo_and_says_what_is_in_it(self) -> None:
        for export in EXPORTS.values():
            with self.subTest(export.address):
                self.assertIsInstance(export.write(orlmere()), str)
                self.assertTrue(export.words and export.about)
                self.assertTrue(export.ending.endswith(Path(export.address).suffix))

    def test_they_are_offered_in_their_order_and_captions_where_there_are_some(self) -> None:
        show = example_a()
        self.assertEqual([export.words for export in exports_of(show)], ["Outline", "Timings", "Schedule", "Timeline"])
        clip = Clip("c", "Clip", Box(0, 0, 100, 100), "a", out_ms=2000, captions=(Caption(0, 1000, "Tick"),))
        slide = msgspec.structs.replace(show.slides[0], objects=(clip,), order=())
        spoken = msgspec.structs.replace(show, slides=(slide,))
        words = [export.words for export in exports_of(spoken)]
        self.assertEqual(words[4:], ["Captions, WebVTT", "Captions, SRT"])

    def test_a_file_more_is_a_format_more(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            (Path(folder) / "titles.py").write_text(NEW)
            with mock.patch.object(formats, "__path__", [*formats.__path__, folder]):
                found = _collect_exports()
        self.assertEqual(next(iter(found)), "titles.txt")
        self.assertEqual(found["titles.txt"].write(example_a()), "One\nTwo\nThree")
        self.assertEqual(found.keys() - EXPORTS.keys(), {"titles.txt"})
