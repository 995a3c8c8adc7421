import io
import tempfile
import zipfile
from pathlib import Path
from unittest import TestCase

import msgspec
import numpy as np
import odfdo
import skia
from odf import anim, draw, teletype, text
from odf.opendocument import load

from ritornel.core.document.objects import GoNext, GoToSlide, OpenAddress
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, OnCue, Show, SoundEffect, Transition, Voice
from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import Limits
from ritornel.core.formats.opendocument.names import Loss
from ritornel.core.formats.opendocument.reading import read_opendocument
from ritornel.core.formats.opendocument.writing import opendocument_losses, write_opendocument, written_of
from ritornel.core.motion.catalogue import EFFECTS, TRANSITIONS
from ritornel.core.motion.settings import read_settings
from ritornel.core.render.painter import Painter
from ritornel.core.schedule.performance import frame_state_at, perform
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.demo.orlmere import media, orlmere
from tests.core.formats.opendocument.grammar import faults
from tests.kinds import every_effect, every_kind

replace = msgspec.structs.replace


class PresentationCase(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory(prefix="ritornel-odp-")
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        (self.folder / "media").mkdir()
        for asset, data in media().values():
            (self.folder / asset.sha256).write_bytes(data)
        self.path = self.folder / "clock.odp"

    def written(self, show: Show) -> tuple[Loss, ...]:
        with self.path.open("wb") as out:
            return write_opendocument(show, out, lambda sha256: self.folder / sha256)

    def read(self) -> tuple[Show, tuple[Loss, ...]]:
        return read_opendocument(self.path, self.path.name, self.folder / "media", "made", Limits())

    def there_and_back(self, show: Show) -> Show:
        self.written(show)
        return self.read()[0]


class ValidTest(PresentationCase):
    def test_every_document_is_as_the_grammar_of_the_format_allows(self) -> None:
        for show in (orlmere(), every_kind(), every_effect()):
            self.written(show)
            with zipfile.ZipFile(self.path) as bundle:
                self.assertEqual(bundle.infolist()[0].filename, "mimetype")
                self.assertEqual(bundle.infolist()[0].compress_type, zipfile.ZIP_STORED)
                for part in ("content.xml", "styles.xml", "meta.xml", "META-INF/manifest.xml"):
                    self.assertEqual(faults(bundle.read(part)), [], f"{show.id} {part}")

    def test_the_validator_does_find_what_is_wrong(self) -> None:
        content = written_of(orlmere()).content
        self.assertEqual(
            faults(
                content.replace(b"<draw:text-box", b"<text:list", 1).replace(b"</draw:text-box>", b"</text:list>", 1)
            ),
            ["frame may not hold list", "list may not hold p"],
        )
        self.assertEqual(
            faults(content.replace(b"draw:style-name=", b"draw:stile-name=", 1)),
            ["page may not have {urn:oasis:names:tc:opendocument:xmlns:drawing:1.0}stile-name"],
        )

    def test_a_second_reader_finds_pages_words_pictures_and_timing(self) -> None:
        self.written(orlmere())
        document = odfdo.Document(str(self.path))
        self.assertEqual(document.get_type(), "presentation")
        self.assertEqual(
            [page.name for page in document.body.get_draw_pages()][:3],
            ["Orlmere at noon", "Who winds it?", "The escapement"],
        )
        third = load(str(self.path))
        said = [teletype.extractText(paragraph) for paragraph in third.getElementsByType(text.P)]
        self.assertIn("How eleven volunteers made it go again", said)
        self.assertEqual(len(third.getElementsByType(draw.Page)), 9)
        self.assertEqual(len(third.getElementsByType(anim.Seq)), 9)
        self.assertTrue(
            all(part.getAttribute("href") in third.Pictures for part in third.getElementsByType(draw.Image))
        )


class RoundTripTest(PresentationCase):
    """Tolerance: a mean difference of 1.5 of 255 over the slide, and 2 % of pixels off by more than 40: outlines are in
    hundredths of a px, shadows hard.
    """

    def pictures(self, show: Show, folder: Path) -> list[np.ndarray]:
        performance = perform(show)
        painter = Painter(performance, show.frame.width_px, show.frame.height_px, lambda sha256: folder / sha256)
        ends = [
            start + slide.length_ms - 1
            for start, slide in zip(performance.schedule.starts_ms, performance.schedule.slides, strict=True)
        ]
        return [
            painter.image(frame_state_at(performance, at))
            .toarray(colorType=skia.kRGBA_8888_ColorType)[:, :, :3]
            .astype(np.int16)
            for at in ends
        ]

    def test_every_slide_looks_as_it_did(self) -> None:
        for show in (orlmere(), every_kind()):
            back = self.there_and_back(show)
            for before, after in zip(
                self.pictures(show, self.folder), self.pictures(back, self.folder / "media"), strict=True
            ):
                difference = np.abs(before - after)
                self.assertLess(float(difference.mean()), 1.5)
                self.assertLess(float((difference.max(axis=2) > 40).mean()), 0.02)

    def test_names_notes_times_and_skipping_come_back(self) -> None:
        show = orlmere()
        slides = tuple(
            replace(slide, skipped=number == 2, notes="Said.\n\nTwice.") for number, slide in enumerate(show.slides)
        )
        back = self.there_and_back(replace(show, slides=slides))
        self.assertEqual((back.title, back.frame, back.end, back.runs), (show.title, show.frame, show.end, show.runs))
        self.assertEqual([slide.name for slide in back.slides], [slide.name for slide in show.slides])
        self.assertEqual([slide.skipped for slide in back.slides], [number == 2 for number in range(9)])
        self.assertEqual(back.slides[0].notes, "Said.\n\nTwice.")
        self.assertEqual(compile_show(back).length_ms, compile_show(replace(show, slides=slides)).length_ms)

    def test_every_build_comes_back_with_its_settings_and_its_time(self) -> None:
        show = every_effect()
        back = self.there_and_back(show)
        for before, after in zip(show.slides, back.slides, strict=True):
            # That show's objects are no clips, so nothing plays.
            wanted = [build for build in before.order if EFFECTS[build.effect].kind not in ("views", "plays")]
            self.assertEqual(
                [(b.effect, b.after_ms, b.lasts_ms, b.pace) for b in wanted],
                [(b.effect, b.after_ms, b.lasts_ms, b.pace) for b in after.order],
            )
            for old, new in zip(wanted, after.order, strict=True):
                kind = EFFECTS[old.effect].settings
                self.assertEqual(
                    read_settings(old.settings, kind, ""), read_settings(new.settings, kind, ""), before.name
                )

    def test_a_running_order_with_cues_comes_back_as_it_was(self) -> None:
        show = orlmere()
        slides = tuple(replace(slide, advance=AdvanceOnCue(f"go{n}")) for n, slide in enumerate(show.slides))
        back = self.there_and_back(replace(show, runs="on cue", slides=slides))
        self.assertEqual(back.runs, "on cue")
        for before, after in zip(show.slides, back.slides, strict=True):
            self.assertEqual(
                [isinstance(build.starts, OnCue) for build in before.order],
                [isinstance(build.starts, OnCue) for build in after.order],
            )
            self.assertIsInstance(after.advance, AdvanceOnCue)
            self.assertEqual(
                [before.object(build.object_id).name for build in before.order],
                [after.object(build.object_id).name for build in after.order],
            )  # type: ignore[union-attr]

    def test_waits_of_a_self_running_show_keep_their_length(self) -> None:
        show = orlmere()
        back = self.there_and_back(show)
        holds = [beat.wait.hold_ms for slide in compile_show(show).slides for beat in slide.beats if beat.wait]
        again = [beat.wait.hold_ms for slide in compile_show(back).slides for beat in slide.beats if beat.wait]
        self.assertEqual(holds, again)
        self.assertTrue(holds)

    def test_transitions_come_back_or_are_told(self) -> None:
        show = orlmere()
        for name, kind in TRANSITIONS.items():
            changed = replace(
                show,
                slides=(
                    show.slides[0],
                    replace(show.slides[1], transition=Transition(name, 700 if name != "cut" else 0)),
                ),
                music=(),
            )
            losses = self.written(changed)
            back, _ = self.read()
            told = any(kind.title in loss.words for loss in losses)
            self.assertEqual(back.slides[1].transition.name == name, not told or name == "zoom through", name)
            self.assertEqual(back.slides[1].transition.lasts_ms, 700 if name != "cut" else 0, name)

    def test_presses_sounds_and_voices_come_back(self) -> None:
        show = orlmere()
        sound = next(asset for asset in show.assets if asset.kind == "sound")
        items = show.slides[0].objects
        presses = (GoNext(), GoToSlide(show.slides[3].id), OpenAddress("https://orlmere.example/clock"))
        first = replace(
            show.slides[0],
            objects=tuple(replace(item, press=press) for item, press in zip(items[:3], presses, strict=True))
            + items[3:],
            transition=Transition("dissolve", 500, sound=SoundEffect(sound.id)),
            voice=Voice(sound.id, 1000, offset_ms=400),
            advance=AdvanceAfter(4000),
        )
        back = self.there_and_back(replace(show, slides=(first, *show.slides[1:])))
        self.assertEqual(
            [item.press for item in back.slides[0].objects][:3],
            [GoNext(), GoToSlide("s4"), OpenAddress("https://orlmere.example/clock")],
        )
        names = {asset.id: asset.sha256 for asset in back.assets}
        self.assertEqual(names[back.slides[0].transition.sound.asset_id], sound.sha256)  # type: ignore[union-attr]
        self.assertEqual(back.slides[0].voice.offset_ms, 400)  # type: ignore[union-attr]


class LossesTest(PresentationCase):
    def test_what_is_lost_is_told_by_slide_before_anything_is_written(self) -> None:
        losses = opendocument_losses(orlmere())
        self.assertIn(Loss(0, "music and ambience"), losses)
        self.assertIn(Loss(4, "round corners of pictures"), losses)
        self.assertEqual(losses, self.written(orlmere()))

    def test_a_missing_medium_is_told_and_nothing_is_written(self) -> None:
        gone = orlmere().assets[0]
        out = io.BytesIO()
        with self.assertRaisesRegex(
            BadMedia, f"“{gone.name}” is missing, so “The Orlmere clock” cannot be saved as a presentation."
        ):
            write_opendocument(
                orlmere(), out, lambda sha256: self.folder / ("nowhere" if sha256 == gone.sha256 else sha256)
            )
        self.assertEqual(out.getvalue(), b"")
