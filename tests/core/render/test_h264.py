"""Pictures that are repeated without an encoder, read again by one that decodes."""

import tempfile
from fractions import Fraction
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import msgspec
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.render.encoding import LEAST_REPEATED, FilmOrder, PictureTrack, picture_stream
from ritornel.core.render.frame_types import FilmFrame
from ritornel.core.render.h264 import NoRepeats, ParameterSets, Repeats, place_of, skipped_blocks, units_of

ORDER = FilmOrder(176, 144, Fraction(30), True)


def picture(number: int, seed: int, size: tuple[int, int] = (176, 144)) -> Any:
    wide, high = size[0], size[1] * 3 // 2
    soft = np.random.default_rng(seed).integers(30, 220, (high // 8 + 1, wide // 8 + 1), dtype=np.uint8)
    planes = np.kron(soft, np.ones((8, 8), dtype=np.uint8))[:high, :wide]
    made = av.VideoFrame.from_ndarray(np.ascontiguousarray(planes), format="yuv420p")
    made.pts, made.time_base = number, 1 / ORDER.rate
    return made


class WrittenTest(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "x.mp4"

    def write(self, changes: list[int], end: int, order: FilmOrder = ORDER, suffix: str = "mp4") -> list[np.ndarray]:
        """A film whose picture changes at those frames, and what a reader finds in it."""
        with av.open(str(self.path), "w", format=suffix) as container:
            track = PictureTrack(container, order, suffix == "webm", 2, end)
            for seed, number in enumerate(changes):
                track.put(FilmFrame(picture(number, seed, (order.width_px, order.height_px))))
            track.put(None)
        with av.open(str(self.path)) as container:
            frames = list(container.decode(video=0))
        self.times = [frame.pts * frame.time_base * order.rate for frame in frames]
        return [frame.to_ndarray() for frame in frames]

    def test_a_picture_that_stands_is_shown_as_it_is_until_the_next(self) -> None:
        stands = LEAST_REPEATED + 200
        found = self.write([0, 1, 2, 3, 4 + stands, 5 + stands], 120 + stands)
        self.assertEqual(self.times, list(range(120 + stands)))
        for number in range(4, 4 + stands):
            np.testing.assert_array_equal(found[number], found[3])
        for number in range(6 + stands, 120 + stands):
            np.testing.assert_array_equal(found[number], found[5 + stands])
        self.assertGreater(np.abs(found[3].astype(int) - found[4 + stands]).mean(), 10)

    def test_it_takes_few_bytes(self) -> None:
        self.write([0], 3000)
        least = self.path.stat().st_size
        self.write([0], 30)
        self.assertLess(least - self.path.stat().st_size, 3000 * 45)

    def test_a_short_stand_is_encoded_and_no_whole_picture_comes_after_it(self) -> None:
        self.write([0, 5, 10, 15], 20)
        with av.open(str(self.path)) as container:
            self.assertEqual([packet.is_keyframe for packet in container.demux(video=0) if packet.size].count(True), 1)
        self.assertEqual(self.times, list(range(20)))

    @settings(max_examples=12, deadline=None)
    @given(
        stands=st.lists(st.one_of(st.integers(1, 4), st.integers(10, 60)), min_size=1, max_size=8),
        size=st.sampled_from([(16, 16), (176, 144), (330, 190)]),
    )
    def test_any_pictures_stand_for_as_long_as_they_should(self, stands: list[int], size: tuple[int, int]) -> None:
        changes = [sum(stands[:number]) for number in range(len(stands))]
        order = msgspec.structs.replace(ORDER, width_px=size[0], height_px=size[1])
        found = self.write(changes, sum(stands), order)
        self.assertEqual(self.times, list(range(sum(stands))))
        for seed, (first, long) in enumerate(zip(changes, stands, strict=True)):
            meant = picture(first, seed, size).to_ndarray().astype(int)
            for number in range(first, first + long):
                self.assertLess(np.abs(found[number] - meant).mean(), 12, (number, stands))

    def test_webm_has_each_picture_encoded(self) -> None:
        self.write([0, 40], 60, suffix="webm")
        self.assertEqual([round(float(at)) for at in self.times], list(range(60)))


class StreamTest(TestCase):
    def encoded(self, **options: str) -> tuple[bytes, list[Any]]:
        with av.open("/dev/null", "w", format="mp4") as container:
            stream = picture_stream(container, ORDER, False, 1, False)
            stream.options = {**stream.options, **options}
            packets = [
                packet for number in range(4) for packet in stream.encode(picture(number, 1) if number < 3 else None)
            ]
            return bytes(stream.codec_context.extradata), packets

    def test_the_sets_of_the_stream_are_read(self) -> None:
        extradata, packets = self.encoded()
        sets = ParameterSets.read(extradata)
        self.assertEqual(sets.blocks, 11 * 9)
        places = [place_of(bytes(packet), sets) for packet in packets]
        self.assertEqual((places[0].frame_number, places[0].order), (0, 0))
        self.assertEqual(sorted(place.order for place in places), [0, 2, 4])

    def test_a_stream_of_another_kind_is_refused(self) -> None:
        for options in ({"coder": "vlc"}, {"x264-params": "bframes=0"}, {"x264-params": "interlaced=1"}):
            with self.subTest(options), self.assertRaises(NoRepeats):
                Repeats(self.encoded(**options)[0])

    def test_all_blocks_skipped_are_a_few_bytes_however_many_they_are(self) -> None:
        """One block: of 510 it leaves 483, and 481 of that are before the end. 481 is 0111100001 in ten bits, of which
        the first is not written; the last ends the slice.
        """
        self.assertEqual(len(skipped_blocks(1)), 9)
        self.assertLess(len(skipped_blocks(3600)), 8 * 32)
        self.assertTrue(skipped_blocks(3600).endswith("1"))

    def test_the_units_of_a_byte_stream_are_found(self) -> None:
        stream = b"\0\0\0\1\x67ab\0\0\1\x68c\0\0\0\1\x65d"
        self.assertEqual(list(units_of(stream)), [b"\x67ab", b"\x68c", b"\x65d"])
