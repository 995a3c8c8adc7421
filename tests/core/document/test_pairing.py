import unittest

import msgspec

from ritornel.core.document.edits import PutGreeting, apply_edit
from ritornel.core.document.objects import Box, Picture
from ritornel.core.document.pairing import numbers_in, pair_voices
from ritornel.core.document.show import Asset, Show, Slide

CLIP = Asset("hello", "hello", "ab" * 32, "video/mp4", size_bytes=1000, width_px=640, height_px=360, lasts_ms=4000)


def show_of(*pictures: str) -> Show:
    """A show with a slide for each picture; "" is a slide without one."""
    slides, assets = [], []
    for number, name in enumerate(pictures):
        if name:
            assets.append(
                Asset(
                    f"a{number}", name, f"{number:02}" * 32, "image/png", size_bytes=1000, width_px=900, height_px=600
                )
            )
        objects = (Picture(f"p{number}", name, Box(0, 0, 900, 600), f"a{number}"),) if name else ()
        slides.append(Slide(f"s{number}", objects=objects))
    return Show("show", "Show", slides=tuple(slides), assets=tuple(assets))


def pairs(names: list[str], show: Show) -> dict[int, str]:
    return {
        row.slide: names[row.file] for row in pair_voices(names, show) if row.slide is not None and row.file is not None
    }


class NumbersTest(unittest.TestCase):
    def test_the_number_counts_that_tells_the_names_apart(self) -> None:
        for names, wanted in (
            (["03 bell (2).wav", "04 wheel.wav"], (3, 4)),
            (["1712 tower 1.wav", "1712 tower 2.wav"], (1, 2)),
            (["folder7/intro.wav", "folder7/2.wav"], (None, 2)),
            (["take 2 of bell.mp3", "take 1 of 4 wheels.mp3"], (2, 1)),
            ([], ()),
        ):
            self.assertEqual(numbers_in(names), wanted, names)


class PairVoicesTest(unittest.TestCase):
    def test_slides_count_from_one_or_from_nought_as_the_files_do(self) -> None:
        for first in (0, 1):
            names = [f"voice {number}.wav" for number in range(first, first + 4)]
            self.assertEqual(pairs(names, show_of("", "", "", "")), dict(enumerate(names)))

    def test_a_gap_stays_a_gap(self) -> None:
        names = ["1.wav", "2.wav", "4.wav"]
        rows = pair_voices(names, show_of("", "", "", ""))
        self.assertEqual([(row.slide, row.file) for row in rows], [(0, 0), (1, 1), (2, None), (3, 2)])
        self.assertEqual(rows[2].trouble, "number 3 is missing")

    def test_the_numbers_of_the_pictures_come_before_the_places_of_the_slides(self) -> None:
        show = show_of("plot0", "plot1", "", "plot7")
        names = ["slide7.mp3", "slide0.mp3"]
        self.assertEqual(pairs(names, show), {0: "slide0.mp3", 3: "slide7.mp3"})

    def test_pictures_whose_numbers_say_nothing_are_left_out_of_account(self) -> None:
        names = ["1.wav", "2.wav"]
        self.assertEqual(pairs(names, show_of("IMG_4001", "IMG_4002")), {0: "1.wav", 1: "2.wav"})
        self.assertEqual(pairs(names, show_of("wheel 2", "dial")), {0: "1.wav", 1: "2.wav"})

    def test_a_greeting_that_was_recorded_before_stays_as_it_is(self) -> None:
        show = apply_edit(show_of("", ""), PutGreeting("g", CLIP, "before")).show
        self.assertEqual(pairs(["1.wav", "2.wav"], show), {1: "1.wav", 2: "2.wav"})

    def test_what_is_wrong_is_told(self) -> None:
        names = ["1.wav", "3.wav", "3 again.wav", "intro.wav", "9.wav"]
        rows = pair_voices(names, show_of("", "", "", ""))
        self.assertEqual([(row.slide, row.file) for row in rows[:4]], [(0, 0), (1, None), (2, 2), (3, None)])
        told = {names[row.file]: row.trouble for row in rows[4:] if row.file is not None}
        self.assertEqual(
            told,
            {
                "3.wav": "has the number 3, as “3 again.wav” has",
                "9.wav": "is number 9: the 4 slides have the numbers 1 to 4",
                "intro.wav": "has no number in its name",
            },
        )
        no_slides = msgspec.structs.replace(show_of(""), slides=())
        self.assertEqual(pair_voices(["1.wav"], no_slides)[0].trouble, "is number 1: there is no slide for it")
