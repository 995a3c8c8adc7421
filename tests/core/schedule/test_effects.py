import msgspec
import numpy as np
from django.test import SimpleTestCase

from ritornel.core.document import Asset, Build, MusicSpan, OnCue, Show, Slide, Transition
from ritornel.core.document import edits as e
from ritornel.core.document.show import AdvanceAfter, SlideStart, SoundEffect
from ritornel.core.errors import UnknownName
from ritornel.core.formats.media import Limits, read_medium
from ritornel.core.schedule.performance import perform
from ritornel.core.sound.mixing import mix_block
from ritornel.sounds import LIBRARY
from tests.examples import shape, sound

BELL = Asset("bell", "Bell", "cd" * 32, "audio/ogg", size_bytes=1000, lasts_ms=4000)


def slide(name: str, effect: SoundEffect | None = None, **more: object) -> Slide:
    fields = {
        "transition": Transition("dissolve", 500, sound=effect),
        "advance": AdvanceAfter(3000),
        "objects": (shape("x"),),
        **more,
    }
    return Slide(name, name.title(), **fields)  # type: ignore[arg-type]


def shown(*slides: Slide, **more: object) -> Show:
    return Show("show", "Show", slides=slides, assets=(BELL, sound()), **more)  # type: ignore[arg-type]


class EffectTest(SimpleTestCase):
    def heard(self, show: Show) -> list[tuple[str, int, int, bool]]:
        return [(event.id, event.start_ms, event.lasts_ms, event.loops) for event in perform(show).effects]

    def test_a_transition_sounds_when_it_begins_and_a_build_when_it_begins(self) -> None:
        order = (
            Build(
                id="b",
                object_id="x",
                effect="enters fade",
                starts=OnCue("c", 700),
                after_ms=100,
                lasts_ms=400,
                sound=SoundEffect("bell", -6.0),
            ),
        )
        show = shown(slide("one", SoundEffect("bell")), slide("two", order=order), slide("three"), slide("four"))
        self.assertEqual(
            self.heard(show), [("transition one", 0, 4000, False), ("build b", 3000 + 500 + 700 + 100, 4000, False)]
        )
        event = perform(show).effects[1]
        self.assertEqual((event.index, event.beat, event.offset_ms, event.gain_db), (1, 1, 100, -6.0))

    def test_nothing_sounds_past_the_end_of_the_show(self) -> None:
        self.assertEqual(
            self.heard(shown(slide("one"), slide("two", SoundEffect("bell")))), [("transition two", 3000, 3000, False)]
        )

    def test_what_keeps_on_repeats_until_the_next_transition_that_sounds(self) -> None:
        show = shown(
            slide("one", SoundEffect("bell", keeps_on=True)),
            slide("two"),
            slide("three", SoundEffect("waltz")),
            slide("four"),
        )
        self.assertEqual(self.heard(show)[0], ("transition one", 0, 6000, True))
        alone = shown(slide("one", SoundEffect("bell", keeps_on=True)), slide("two"))
        self.assertEqual(self.heard(alone), [("transition one", 0, 6000, True)])

    def test_music_that_ends_kept_sounds_ends_them_where_it_begins(self) -> None:
        kept = slide("one", SoundEffect("bell", keeps_on=True))
        span = MusicSpan(id="m", asset_id="waltz", start=SlideStart("two", 500), ends_kept=True)
        self.assertEqual(self.heard(shown(kept, slide("two"), music=(span,)))[0], ("transition one", 0, 3500, True))
        other = msgspec.structs.replace(span, ends_kept=False)
        self.assertEqual(self.heard(shown(kept, slide("two"), music=(other,)))[0], ("transition one", 0, 6000, True))

    def test_in_the_mix_it_repeats_without_a_pause_and_stops(self) -> None:
        performance = perform(
            shown(
                slide("one", SoundEffect("bell", keeps_on=True)),
                slide("two"),
                slide("three", SoundEffect("waltz", -60.0)),
            )
        )
        ramp = np.repeat(np.linspace(0.1, 0.9, 4 * 48_000, dtype=np.float32)[:, None], 2, axis=1)
        silent = np.zeros((48_000, 2), np.float32)
        out = mix_block((), {"bell": ramp, "waltz": silent}, 0, 9 * 48_000, performance.events)[:, 0]
        self.assertAlmostEqual(float(out[5 * 48_000]), float(ramp[48_000, 0]), places=6)
        self.assertEqual(float(np.abs(out[6 * 48_000 :]).max()), 0.0)
        whole = mix_block((), {"bell": ramp, "waltz": silent}, 3 * 48_000 + 7, 1000, performance.events)[:, 0]
        self.assertTrue(np.array_equal(whole, out[3 * 48_000 + 7 : 3 * 48_000 + 1007]))

    def test_a_sound_that_is_not_on_the_shelf_is_refused(self) -> None:
        show = shown(slide("one"))
        with self.assertRaisesMessage(
            UnknownName, "“One” would sound with “gone”, which is no sound on the shelf. Nothing was changed."
        ):
            e.apply_edit(show, e.ChangeSlides(("one",), {"transition": {"name": "cut", "sound": {"asset_id": "gone"}}}))
        used = shown(slide("one", SoundEffect("bell")))
        with self.assertRaises(Exception) as caught:
            e.apply_edit(used, e.DropAssets(("bell",)))
        self.assertIn("is still used on slide “One”", str(caught.exception))
        replaced = e.apply_edit(used, e.ReplaceAsset("bell", "waltz")).show.slides[0].transition.sound
        self.assertEqual(replaced, SoundEffect("waltz"))


class LibraryTest(SimpleTestCase):
    def test_every_sound_ships_can_be_read_and_is_small(self) -> None:
        for entry in LIBRARY:
            medium = read_medium(entry.path, Limits())
            self.assertGreater(medium.lasts_ms, 50, entry.name)
            self.assertLess(len(medium.data), 60_000, entry.name)
