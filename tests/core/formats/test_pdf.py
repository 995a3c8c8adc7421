import tempfile
from pathlib import Path
from unittest import TestCase

import pypdfium2 as pdfium
from PIL import Image

from ritornel.core.document.show import AdvanceAfter, Frame
from ritornel.core.errors import BadMedia, BadValue, Cancelled
from ritornel.core.formats.pdf import frame_for, read_pdf
from ritornel.core.render.pages import page_size, write_pdf
from ritornel.core.render.workload import Progress
from ritornel.core.schedule.performance import perform
from ritornel.demo.orlmere import media, orlmere


class PdfCase(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory(prefix="ritornel-pdf-")
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        (self.folder / "media").mkdir()
        for asset, data in media().values():
            (self.folder / asset.sha256).write_bytes(data)
        self.path = self.folder / "clock.pdf"

    def written(self, kind: str = "slides") -> int:
        return write_pdf(perform(orlmere()), self.path, kind, lambda sha256: self.folder / sha256)  # type: ignore[arg-type]

    def read(self):  # type: ignore[no-untyped-def]
        return read_pdf(self.path, self.path.name, self.folder / "media", "made")


class WritingTest(PdfCase):
    def test_a_slide_a_page_keeps_its_size_and_its_words(self) -> None:
        self.assertEqual(self.written(), 9)
        document = pdfium.PdfDocument(self.path)
        self.assertEqual((len(document), document[0].get_size()), (9, (960.0, 540.0)))
        self.assertIn("28 800 ticks a day", document[2].get_textpage().get_text_range())
        self.assertEqual(document.get_metadata_dict()["Title"], "The Orlmere clock")

    def test_each_beat_is_a_page_of_what_is_there_at_its_end(self) -> None:
        beats = [len(staged.schedule.beats) for staged in perform(orlmere()).slides]
        self.assertEqual(self.written("beats"), sum(beats))
        document = pdfium.PdfDocument(self.path)
        first = beats[0] + beats[1]
        words = [document[first + beat].get_textpage().get_text_range() for beat in range(3)]
        self.assertEqual(["28 800" in text for text in words], [False, False, True])

    def test_notes_stand_below_their_slide_and_go_on_where_they_are_long(self) -> None:
        self.assertEqual(self.written("notes"), 9)
        text = pdfium.PdfDocument(self.path)[2].get_textpage().get_text_range()
        self.assertIn("The pallets drop in and catch it", text)
        import msgspec

        wordy = tuple(
            msgspec.structs.replace(slide, notes="A line of notes that is said.\n" * 90)
            for slide in orlmere().slides[:1]
        )
        show = perform(msgspec.structs.replace(orlmere(), slides=wordy, music=()))
        pages = write_pdf(show, self.path, "notes", lambda sha256: self.folder / sha256)
        document = pdfium.PdfDocument(self.path)
        said = sum(document[page].get_textpage().get_text_range().count("that is said") for page in range(pages))
        self.assertGreater(pages, 1)
        self.assertEqual(said, 90)

    def test_a_page_looks_like_its_slide(self) -> None:
        from ritornel.core.render.stills import png_of
        from ritornel.core.schedule.performance import frame_state_at_rest

        self.written()
        shown = perform(orlmere())
        png = png_of(shown, frame_state_at_rest(shown, 2, 2), 960, 540, lambda sha256: self.folder / sha256)
        import io

        import numpy as np

        page = np.asarray(pdfium.PdfDocument(self.path)[2].render(scale=1).to_pil().convert("RGB"), dtype=int)
        still = np.asarray(Image.open(io.BytesIO(png)).convert("RGB"), dtype=int)
        # Two rasterers: edges differ by their antialiasing, areas do not.
        self.assertLess(np.abs(page - still).mean(), 2.0)

    def test_what_cannot_be_written_is_told_and_a_cancel_leaves_nothing(self) -> None:
        with self.assertRaisesRegex(BadValue, "A PDF has slides, beats or notes, not “posters”."):
            self.written("posters")

        def stop(progress: Progress) -> None:
            raise Cancelled("Enough.")

        with self.assertRaises(Cancelled):
            write_pdf(perform(orlmere()), self.path, "slides", lambda sha256: self.folder / sha256, stop)
        self.assertEqual(list(self.folder.glob("*.pdf")) + list(self.folder.glob(".*unfinished*")), [])
        self.assertEqual(page_size(perform(orlmere()), "notes"), (595.0, 842.0))


class ReadingTest(PdfCase):
    def test_pages_come_in_sharp_with_their_words(self) -> None:
        self.written()
        show, told = self.read()
        self.assertEqual((show.title, show.frame, len(show.slides), told), ("The Orlmere clock", Frame(), 9, ()))
        asset = show.assets[2]
        self.assertEqual((asset.width_px, asset.height_px), (2560, 1440))
        self.assertTrue(asset.alternative.startswith("The escapement lets one tooth pass"))
        # 13 words: 1 500 + 4 333 ms.
        self.assertEqual(show.slides[2].advance, AdvanceAfter(1500 + round(len(asset.alternative.split()) * 1000 / 3)))
        perform(show)

    def test_upright_pages_make_an_upright_show(self) -> None:
        self.assertEqual(frame_for(595, 842), Frame(904, 1280))

    def test_broken_pages_among_good_ones_are_left_out_and_told(self) -> None:
        from unittest import mock

        self.written()
        real = pdfium.PdfPage.render

        def render(page, *given, **named):  # type: ignore[no-untyped-def]
            if "Two wheels" in page.get_textpage().get_text_range():
                raise pdfium.PdfiumError("Failed to render page.")
            return real(page, *given, **named)

        with mock.patch.object(pdfium.PdfPage, "render", render):
            show, told = self.read()
        self.assertEqual((len(show.slides), told), (8, ("Page 4 of “clock.pdf” cannot be read and was left out.",)))

    def test_what_is_no_pdf_has_a_password_or_too_many_pages_is_told(self) -> None:
        self.path.write_bytes(b"%PDF-1.4 and then nothing")
        with self.assertRaisesRegex(BadMedia, "“clock.pdf” is no PDF that can be read. Nothing was made."):
            self.read()
        self.path.write_bytes(LOCKED)
        with self.assertRaisesRegex(BadMedia, "“clock.pdf” is kept shut by a password."):
            self.read()
        many = pdfium.PdfDocument.new()
        for _ in range(3000):
            many.new_page(100, 100)
        many.save(str(self.path))
        with self.assertRaisesRegex(BadMedia, "“clock.pdf” has 3000 pages; at most 300 can become slides."):
            self.read()
        self.assertEqual(list((self.folder / "media").iterdir()), [])


def _locked() -> bytes:
    """A PDF of one page that is kept shut by a password:

    RC4 with a key of 40 bits, revision 2 of the standard handler (ISO 32000-1, 7.6.3). Only its entries matter here: no
    password that is tried fits them.
    """
    parts = [
        b"<< /Type /Catalog /Pages 2 0 R >>",
        b"<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
        b"<< /Type /Page /Parent 2 0 R /MediaBox [0 0 100 100] >>",
        b"<< /Filter /Standard /V 1 /R 2 /O <" + b"41" * 32 + b"> /U <" + b"42" * 32 + b"> /P -60 >>",
    ]
    out, places = b"%PDF-1.4\n", []
    for number, part in enumerate(parts, 1):
        places.append(len(out))
        out += b"%d 0 obj\n%s\nendobj\n" % (number, part)
    start = len(out)
    out += b"xref\n0 5\n0000000000 65535 f \n" + b"".join(b"%010d 00000 n \n" % place for place in places)
    return out + b"trailer\n<< /Size 5 /Root 1 0 R /Encrypt 4 0 R /ID [<41> <41>] >>\nstartxref\n%d\n%%%%EOF\n" % start


LOCKED = _locked()
