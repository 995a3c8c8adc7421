import tempfile
from pathlib import Path
from unittest import TestCase

import msgspec
import numpy as np

from ritornel.core.checks import Finding, find_problems
from ritornel.core.document import (
    AdvanceAfter,
    Box,
    Build,
    Follows,
    Frame,
    Paragraph,
    Shape,
    Show,
    Slide,
    Text,
    TextRun,
)
from ritornel.core.document.decoding import to_json
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.objects import Picture, Plain
from ritornel.core.document.show import Asset
from ritornel.core.render import frame_analysis
from ritornel.core.render.flashes import FlashMeter, in_blocks, luminance_of
from ritornel.core.render.frame_analysis import analyse_slide, write_analyses
from ritornel.core.schedule.measurements import FrameAnalysis
from ritornel.core.schedule.performance import perform
from ritornel.demo.orlmere import orlmere


def text(colour: str, size: float = 40, **more: object) -> Text:
    return Text(
        "words",
        "The words",
        Box(100, 100, 800, 120),
        paragraphs=(Paragraph("p", (TextRun("Seventy-eight turns"),)),),
        size_px=size,
        colour=colour,
        **more,
    )  # type: ignore[arg-type]


def nothing(sha256: str) -> Path:
    raise AssertionError("no media here")


def show_of(*objects: object, ground: str = "#ffffff", **more: object) -> Show:
    slide = Slide("one", "One", background=Plain(ground), objects=objects, advance=AdvanceAfter(4000), **more)  # type: ignore[arg-type]
    return Show("s", "Show", Frame(), slides=(slide,))


def findings(show: Show) -> list[Finding]:
    seen = analyse_slide(show, "one", nothing)
    return [
        finding for finding in find_problems(show, analyses={"one": seen}) if finding.check in ("contrast", "flashes")
    ]


class MeterTest(TestCase):
    def frames(self, values: list[float], every_ms: float, share: float = 1.0) -> int:
        meter = FlashMeter()
        for number, value in enumerate(values):
            frame = np.zeros((10, 20), dtype=np.float32)
            frame[:, : round(20 * share)] = value
            meter.take(frame, number * every_ms)
        return meter.worst().most

    def test_pairs_of_opposing_changes_within_a_second_are_flashes(self) -> None:
        self.assertEqual(self.frames([0, 1] * 8, 125), 4)
        self.assertEqual(self.frames([0, 1] * 4, 250), 2)
        self.assertEqual(self.frames([0, 1, 1, 1], 100), 0)

    def test_small_changes_bright_ones_and_small_places_are_none(self) -> None:
        self.assertEqual(self.frames([0.3, 0.38] * 8, 100), 0)
        self.assertEqual(self.frames([0.85, 1.0] * 8, 100), 0)
        self.assertEqual(self.frames([0, 1] * 8, 100, share=0.0), 0)

    def test_what_moves_across_the_frame_does_not_flash(self) -> None:
        meter = FlashMeter()
        for number in range(20):
            frame = np.zeros((10, 20), dtype=np.float32)
            frame[:, number : number + 3] = 1
            meter.take(frame, number * 40.0)
        self.assertLessEqual(meter.worst().most, 1)

    def test_fine_patterns_are_judged_by_their_mean(self) -> None:
        board = np.indices((8, 8)).sum(axis=0) % 2
        self.assertEqual(in_blocks(board.astype(np.float32)).tolist(), [[0.5, 0.5], [0.5, 0.5]])
        self.assertAlmostEqual(float(luminance_of(np.array([[255, 255, 255]], dtype=np.uint8))[0]), 1.0, places=5)


class ContrastTest(TestCase):
    def test_words_that_do_not_stand_out_are_found_and_set_in_what_does(self) -> None:
        show = show_of(text("#cccccc"))
        (finding,) = findings(show)
        self.assertEqual(
            (finding.id, finding.title),
            ("contrast:one:words", "“The words” has a contrast of 1.6:1 to what is behind it; it needs 3:1"),
        )
        assert finding.fix is not None
        self.assertEqual(findings(apply_edit(show, finding.fix.edit).show), [])

    def test_what_is_really_behind_them_counts_and_not_the_ground(self) -> None:
        panel = Shape("panel", "Panel", Box(80, 80, 900, 200), form="rectangle", fill=Plain("#101010"))
        self.assertEqual(findings(show_of(panel, text("#ffffff"))), [])
        self.assertEqual([finding.check for finding in findings(show_of(panel, text("#222222")))], ["contrast"])

    def test_small_words_need_more(self) -> None:
        grey = "#808080"
        self.assertEqual(findings(show_of(text(grey, 40))), [])
        self.assertEqual([finding.check for finding in findings(show_of(text(grey, 18)))], ["contrast"])

    def test_what_is_hollow_or_highlighted_is_not_judged(self) -> None:
        self.assertEqual(findings(show_of(text("#eeeeee", highlight="#101010"))), [])

    def test_a_slide_that_flashes_stops_the_show(self) -> None:
        panel = Shape("panel", "Panel", Box(0, 0, 1280, 720), form="rectangle", fill=Plain("#ffffff"))
        on = [
            Build(id=f"on{n}", object_id="panel", effect="enters cut in", starts=Follows(), after_ms=100, lasts_ms=0)
            for n in range(6)
        ]
        off = [
            Build(id=f"off{n}", object_id="panel", effect="leaves cut out", starts=Follows(), after_ms=100, lasts_ms=0)
            for n in range(6)
        ]
        order = tuple(build for pair in zip(on, off, strict=True) for build in pair)
        (finding,) = findings(show_of(panel, ground="#000000", order=order))
        self.assertEqual(
            (finding.id, finding.severity, finding.title), ("flashes:one", "stops", "Flashes 5 times within a second")
        )

    def test_slow_builds_are_looked_at_ten_times_a_second_and_quick_ones_at_every_frame(self) -> None:
        def rate(*order: Build) -> int:
            return frame_analysis._frames_a_s(
                perform(
                    msgspec.structs.replace(
                        orlmere(), slides=(msgspec.structs.replace(orlmere().slides[0], order=order),)
                    )
                ),
                0,
            )

        fade = [
            Build(id=f"b{number}", object_id="title", effect="enters fade", starts=Follows(), lasts_ms=lasts)
            for number, lasts in enumerate((600, 240, 240, 240))
        ]
        self.assertEqual(rate(*fade[:3]), 10)
        self.assertEqual(rate(*fade), 25)
        self.assertEqual(
            rate(Build(id="b", object_id="title", effect="accents blink", starts=Follows(), lasts_ms=900)), 25
        )

    def test_a_slide_that_cannot_be_drawn_keeps_no_other_from_being_looked_at(self) -> None:
        picture = Slide("lost", "Lost", objects=(Picture("gone", "Gone", Box(0, 0, 90, 90), "gone"),))
        show = msgspec.structs.replace(
            show_of(text("#cccccc")),
            assets=(Asset("gone", "Gone", "a" * 64, "image/png", size_bytes=10, width_px=9, height_px=9),),
        )
        show = msgspec.structs.replace(show, slides=(picture, *show.slides))
        with tempfile.TemporaryDirectory() as folder:
            paths = [("lost", Path(folder) / "lost.json"), ("one", Path(folder) / "one.json")]
            write_analyses(to_json(show), paths, {})
            looks = [msgspec.json.decode(path.read_bytes(), type=FrameAnalysis) for _, path in paths]
            self.assertEqual([bool(look.contrasts) for look in looks], [False, True])
