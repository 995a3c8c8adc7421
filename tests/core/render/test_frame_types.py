"""Which frames of a film are B frames."""

from types import SimpleNamespace
from unittest import TestCase

from av.video.frame import PictureType

from ritornel.core.render.frame_types import Blend, FilmFrame, FrameTypes, between_in_dissolve

LETTERS = {PictureType.I: "I", PictureType.P: "P", PictureType.B: "B"}


def frame(number: int, blend: Blend | None = None) -> FilmFrame:
    return FilmFrame(SimpleNamespace(pts=number, pict_type=PictureType.NONE), blend)


def types_of(frames: list[FilmFrame], most_between: int = 9) -> str:
    types = FrameTypes(most_between)
    given = [picture for one in frames for picture in types.put(one)] + list(types.end())
    assert [picture.pts for picture in given] == [one.picture.pts for one in frames], "the order is that of the frames"
    return "".join(LETTERS[picture.pict_type] for picture in given)


def dissolve(first: int, frames: int, pictures: str = "a b", power: int = 1) -> list[FilmFrame]:
    """A dissolve of so many frames, without the two stills around it."""
    shares = [round(256 * (number / (frames + 1)) ** power) for number in range(1, frames + 1)]
    return [frame(first + number, Blend(pictures, share)) for number, share in enumerate(shares)]


class FrameTypesTest(TestCase):
    def test_where_things_move_two_frames_lie_between_two_others(self) -> None:
        self.assertEqual(types_of([frame(number) for number in range(8)]), "IBBPBBPP")

    def test_a_frame_that_stands_is_never_between_others(self) -> None:
        self.assertEqual(types_of([frame(0), frame(50), frame(51), frame(90), frame(91)]), "IBPBP")

    def test_a_dissolve_at_an_even_pace_has_nine_between_two_others_and_ends_in_the_slide_it_comes_to(self) -> None:
        film = [frame(0), *dissolve(90, 29), frame(119)]
        self.assertEqual(types_of(film), "I" + "BBBBBBBBBP" * 2 + "BBBBBBBBBP")

    def test_large_frames_have_fewer_between(self) -> None:
        self.assertEqual((between_in_dissolve(1920, 1080), between_in_dissolve(3840, 2160)), (9, 3))
        film = [frame(0), *dissolve(90, 11), frame(101)]
        self.assertEqual(types_of(film, 3), "I" + "BBBP" * 3)

    def test_where_its_pace_changes_fewer_lie_between(self) -> None:
        even = types_of([frame(0), *dissolve(90, 29), frame(119)])
        quicker = types_of([frame(0), *dissolve(90, 29, power=3), frame(119)])
        self.assertGreater(quicker.count("P"), even.count("P"))
        self.assertIn("BBB", quicker)

    def test_a_dissolve_of_slides_in_which_something_moves_is_like_all_that_moves(self) -> None:
        moving = [frame(90 + number, Blend(f"a b{number}", 8 * number)) for number in range(1, 8)]
        self.assertEqual(types_of([frame(0), *moving]), "IBBPBBPP")

    def test_a_dissolve_begins_with_the_last_frame_before_it(self) -> None:
        film = [frame(0), frame(1), frame(2), *dissolve(3, 9), frame(12)]
        self.assertEqual(types_of(film), "IBP" + "BBBBBBBBB" + "P")

    def test_one_dissolve_after_another_begins_anew(self) -> None:
        film = [frame(0), *dissolve(1, 9, "a b"), *dissolve(10, 9, "b c"), frame(19)]
        self.assertEqual(types_of(film)[9:11], "PB")

    def test_a_film_that_begins_in_a_dissolve_goes_on_from_there(self) -> None:
        self.assertEqual(types_of([*dissolve(0, 29)[15:]])[:11], "IBBBBBBBBBP")
