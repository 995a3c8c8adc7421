"""Films made again after an edit: what did not change is not drawn again, and the film is the one that would have been
made anew.
"""

import os
import tempfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase, mock

import msgspec

from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.edits import ChangeSlides, Edit, RemoveSlides, ReorderSlides, apply_edit
from ritornel.core.document.show import AdvanceAfter, Show, Transition
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.kept_segments import SegmentStore, segment_key, sound_key
from ritornel.core.render.process_pool import Crew, FilmSegment, FilmSource
from ritornel.core.render.segmented_film import segments_of, write_segmented_film
from ritornel.core.schedule.performance import perform
from ritornel.demo.orlmere import media, orlmere

replace = msgspec.structs.replace
SMALL = FilmOrder(160, 90, Fraction(10))


def show(end: str = "hold") -> Show:
    """Four slides of the demo, each at rest after its transition, long enough to be a segment."""
    slides = tuple(
        replace(slide, order=(), transition=Transition("dissolve", 400), advance=AdvanceAfter(9000), voice=None)
        for slide in orlmere().slides[:4]
    )
    # As it is read from where it is kept: what was written as 84 is 84.0 then.
    return from_json(to_json(replace(orlmere(), slides=slides, end=end)), Show, "The show")  # type: ignore[arg-type]


def named(words: str) -> Edit:
    """An edit that is seen: another background for the slide."""
    return ChangeSlides(("who-s",), {"background": {"kind": "plain", "colour": words}})


class KeptSegmentsTest(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory(prefix="ritornel-kept-")
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.store = SegmentStore(self.folder / "store")
        self.paths = {}
        for asset, data in media().values():
            (self.folder / asset.sha256).write_bytes(data)
            self.paths[asset.sha256] = str(self.folder / asset.sha256)

    def film(self, value: Show, store: SegmentStore | None, name: str = "film.mp4") -> tuple[bytes, list[int], bool]:
        """The film, the numbers of the segments that were drawn for it, and whether its sound was made."""
        drawn: list[int] = []
        heard: list[bool] = [False]
        begin = Crew.__init__

        def watched(
            crew: Crew,
            scene: FilmSource,
            folder: Path,
            webm: bool,
            segments: list[FilmSegment],
            sound: bool,
            processes: int,
        ) -> None:
            drawn.extend(segment.number for segment in segments)
            heard[0] = sound
            begin(crew, scene, folder, webm, segments, sound, processes)

        with mock.patch.object(Crew, "__init__", watched):
            write_segmented_film(
                FilmSource(value, SMALL, self.paths), self.folder / name, self.folder / "parts", store=store
            )
        return (self.folder / name).read_bytes(), drawn, heard[0]

    def test_only_what_an_edit_changed_is_drawn_again_and_the_film_is_that_of_a_fresh_start(self) -> None:
        first, drawn, heard = self.film(show(), self.store)
        self.assertEqual((drawn, heard), ([0, 1, 2, 3], True))
        again, drawn, heard = self.film(show(), self.store)
        self.assertEqual((again == first, drawn, heard), (True, [], False))
        edited = apply_edit(show(), named("#203040")).show
        found, drawn, heard = self.film(edited, self.store)
        # The slide itself, and the next one, which dissolves out of it.
        self.assertEqual((drawn, heard), ([1, 2], False))
        self.assertEqual(found, self.film(edited, None, "fresh.mp4")[0])

    def test_slides_that_were_moved_are_not_drawn_again_where_they_look_as_before(self) -> None:
        cuts = replace(
            show(), slides=tuple(replace(slide, transition=Transition("cut", 0)) for slide in show().slides), music=()
        )
        self.film(cuts, self.store)
        moved = apply_edit(cuts, ReorderSlides(("esc-s",), 0)).show
        found, drawn, _ = self.film(moved, self.store)
        self.assertEqual(found, self.film(moved, None, "fresh.mp4")[0])
        self.assertLess(len(drawn), 4)

    def test_a_key_is_of_all_that_is_seen_and_nothing_else(self) -> None:
        def keys(value: Show, order: FilmOrder = SMALL, webm: bool = False) -> list[str]:
            performance = perform(value)
            return [segment_key(performance, order, webm, segment) for segment in segments_of(performance, order)]

        base = keys(show())
        self.assertEqual(keys(apply_edit(show(), ChangeSlides(("who-s",), {"notes": "Say this"})).show), base)
        changed = {
            "colour": keys(apply_edit(show(), named("#203040")).show),
            "size": keys(show(), replace(SMALL, width_px=320, height_px=180)),
            "rate": keys(show(), replace(SMALL, constant_rate=True)),
            "form": keys(show(), webm=True),
            "end": keys(show("black")),
            "loop": keys(show("loop")),
        }
        differ = {
            name: [number for number, (one, other) in enumerate(zip(base, found, strict=True)) if one != other]
            for name, found in changed.items()
        }
        # A show that ends in another way ends in another way; one that loops begins in another way too.
        expected = {
            "colour": [1, 2],
            "size": [0, 1, 2, 3],
            "rate": [0, 1, 2, 3],
            "form": [0, 1, 2, 3],
            "end": [3],
            "loop": [0, 3],
        }
        self.assertEqual(differ, expected)
        other = replace(
            show(),
            assets=tuple(
                replace(asset, sha256="0" * 64) if asset.kind == "picture" else asset for asset in show().assets
            ),
        )
        self.assertNotEqual(keys(other), base)
        self.assertNotEqual(
            sound_key(perform(show()), False),
            sound_key(perform(apply_edit(show(), RemoveSlides(("who-s",))).show), False),
        )

    def test_the_store_keeps_to_its_size_and_lets_the_oldest_go(self) -> None:
        store = SegmentStore(self.folder / "small", most_bytes=250)
        for number, name in enumerate("abc"):
            part = self.folder / f"part {name}"
            part.write_bytes(name.encode() * 100)
            store.keep(name, part)
            os.utime(self.folder / "small" / name, (2e9 + number, 2e9 + number))
        store.trim()
        self.assertEqual([store.fetch(name, self.folder / "out") for name in "abc"], [False, True, True])
        os.utime(self.folder / "small" / "b", (1e9, 1e9))
        store.trim()
        self.assertEqual([store.fetch(name, self.folder / "out") for name in "bc"], [False, True])
        self.assertEqual((self.folder / "out").read_bytes(), b"c" * 100)

    def test_a_film_without_a_store_keeps_nothing(self) -> None:
        self.film(show(), None)
        self.assertEqual(list((self.folder / "store").iterdir()), [])
