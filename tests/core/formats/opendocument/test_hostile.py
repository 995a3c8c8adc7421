import io
import zipfile

from ritornel.core.errors import BadMedia
from ritornel.core.formats.opendocument.names import Loss
from tests.core.formats.opendocument import page, png, presentation
from tests.core.formats.opendocument.test_reading import BOX, ReadingCase

TEXT = "application/vnd.oasis.opendocument.text"


class HostileTest(ReadingCase):
    """Every refusal says what is wrong and that nothing was made, and leaves nothing behind."""

    def refused(self, data: bytes, words: str, name: str = "made.odp") -> None:
        with self.assertRaises(BadMedia) as told:
            self.read(data, name)
        self.assertIn(words, str(told.exception))
        self.assertIn("Nothing was made.", str(told.exception))
        self.assertEqual(list((self.folder / "media").iterdir()), [])

    def rewritten(self, data: bytes, changes: dict[str, bytes]) -> bytes:
        out = io.BytesIO()
        with zipfile.ZipFile(io.BytesIO(data)) as source, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
            for entry in source.infolist():
                bundle.writestr(entry.filename, changes.pop(entry.filename, source.read(entry.filename)))
            for place, content in changes.items():
                bundle.writestr(place, content)
        return out.getvalue()

    def test_what_is_no_presentation_is_refused_by_what_it_is(self) -> None:
        self.refused(b"just words", "“made.odp” is no OpenDocument presentation.")
        self.refused(b"\xd0\xcf\x11\xe0" + bytes(600), "of an older kind that is not open")
        self.refused(presentation(page(BOX), kind=TEXT), "“made.odp” is a text document, not a presentation.")
        self.refused(presentation(""), "“made.odp” has no pages.")

    def test_a_file_that_is_cut_off_is_refused_wherever_it_ends(self) -> None:
        whole = presentation(page(BOX) * 40, files={"Pictures/a.png": png(400, 300)})
        for length in (10, 100, len(whole) // 2, len(whole) - 30, len(whole) - 1):
            self.refused(whole[:length], "“made.odp” is cut off or damaged")

    def test_damaged_content_is_refused(self) -> None:
        whole = presentation(page(BOX))
        self.refused(
            self.rewritten(whole, {"content.xml": b"<office:document-content"}), "cut off or damaged at “content.xml”"
        )
        middle = whole.index(b"content.xml") + 60
        self.refused(whole[:middle] + bytes(30) + whole[middle + 30 :], "cut off or damaged")

    def test_entities_are_never_expanded_and_nothing_outside_is_asked_for(self) -> None:
        laughs = b'<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "bbbbbbbbbb"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]><a>&c;</a>'
        outside = b'<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><a>&b;</a>'
        for trap in (laughs, outside):
            self.refused(
                self.rewritten(presentation(page(BOX)), {"content.xml": trap}),
                "defines entities or asks for other files",
            )
            self.refused(
                self.rewritten(presentation(page(BOX)), {"styles.xml": trap}),
                "defines entities or asks for other files",
            )

    def test_a_bomb_is_not_unpacked(self) -> None:
        self.refused(
            presentation(page(BOX), files={"Pictures/a.png": bytes(40_000_000)}),
            "“Pictures/a.png” would unpack to 40,000,000 bytes",
        )
        self.refused(
            presentation(page(BOX), files={f"Pictures/{n}.png": b"" for n in range(5001)}), "at most 5,000 are read"
        )

    def test_markup_nested_without_end_is_refused(self) -> None:
        self.refused(presentation(page("<draw:g>" * 400 + "</draw:g>" * 400)), "300 inside one another")

    def test_a_password_is_told(self) -> None:
        manifest = b'<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"><manifest:encryption-data/></manifest:manifest>'
        self.refused(
            self.rewritten(presentation(page(BOX)), {"META-INF/manifest.xml": manifest}), "kept shut by a password"
        )

    def test_another_generation_is_refused_and_a_newer_version_read_as_far_as_it_is_known(self) -> None:
        self.refused(
            presentation(page(BOX), version="2.0"), "was written in OpenDocument 2.0; versions up to 1.4 can be read."
        )
        show, losses = self.read(presentation(page(BOX), version="1.7"))
        self.assertEqual(len(show.slides), 1)
        self.assertEqual(losses, (Loss(0, "what is new in OpenDocument 1.7: versions up to 1.4 are known here"),))

    def test_pictures_outside_the_file_are_told_and_not_fetched(self) -> None:
        for address in ("http://127.0.0.1:1/a.png", "file:///etc/passwd", "../../etc/passwd", "/etc/passwd"):
            slide, lost = self.one(
                f'<draw:frame svg:width="1in" svg:height="1in"><draw:image xlink:href="{address}"/></draw:frame>'
            )
            self.assertEqual((len(slide.objects), lost), (1, ["a picture, clip or sound that lies outside the file"]))

    def test_links_that_could_run_something_are_left_out(self) -> None:
        slide, lost = self.one(
            '<draw:a xlink:href="javascript:alert(1)"><draw:rect svg:width="1in" '
            'svg:height="1in"/></draw:a><draw:frame svg:width="2in" svg:height="1in">'
            "<draw:text-box><text:p><text:a "
            'xlink:href="javascript:alert(1)">go</text:a></text:p></draw:text-box></draw:frame>'
        )
        self.assertIsNone(slide.objects[1].press)
        self.assertIsNone(slide.objects[2].paragraphs[0].runs[0].link)  # type: ignore[union-attr]
        self.assertIn("a link that leads into a file", lost)

    def test_numbers_without_sense_do_no_harm(self) -> None:
        strange = (
            '<draw:rect svg:x="1e99cm" svg:y="NaN" svg:width="-5cm" '
            'svg:height="999999999cm"/><draw:rect draw:transform="rotate (x) scale (0 0) matrix (1 2)"/>'
            '<draw:path svg:viewBox="0 0 0 0" svg:d="M 0 0 L nonsense"/><draw:polygon '
            'draw:points=""/><draw:ellipse svg:width="wide"/>'
        )
        slide, _ = self.one(strange)
        self.assertGreaterEqual(len(slide.objects), 1)

    def test_styles_that_are_each_others_parents_end(self) -> None:
        automatic = "".join(
            f'<style:style style:name="{a}" style:family="graphic" '
            f'style:parent-style-name="{b}"><style:graphic-properties draw:fill="none"/></style:style>'
            for a, b in ("xy", "yx")
        )
        slide, _ = self.one('<draw:rect draw:style-name="x" svg:width="1in" svg:height="1in"/>', automatic=automatic)
        self.assertIsNone(slide.objects[1].fill)  # type: ignore[union-attr]
