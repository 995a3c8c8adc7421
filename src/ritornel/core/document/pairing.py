"""Pairing numbered voices with slides, as a table to look at before anything happens.

File numbers count from 0 or from 1, with gaps, behind prefixes. A slide has the number in its picture's file name, if
any; else its place among the slides.
"""

import re
from collections.abc import Sequence

import msgspec

from ritornel.core.document.objects import Clip, Picture
from ritornel.core.document.show import Show, Slide
from ritornel.core.wording import count_text

_NUMBER = re.compile(r"\d+")


class Pairing(msgspec.Struct, frozen=True, kw_only=True):
    """One row of the table: the slide's place from 0 (None: no slide fits the file), the file's place in the input
    (None: no file fits the slide), and the problem ("" for none).
    """

    slide: int | None
    file: int | None
    trouble: str = ""


def numbers_in(names: Sequence[str]) -> tuple[int | None, ...]:
    """The number that distinguishes each name from the others; None where a name has none.

    A name may have several numbers: the place, counted from the left or from the right, that distinguishes the most
    names wins; among equals the one farthest to the left.

    >>> numbers_in(["2026 take 1.wav", "2026 take 2.wav", "hello.wav"])
    (1, 2, None)
    """
    found = [[int(digits) for digits in _NUMBER.findall(name.rsplit("/", 1)[-1].rsplit(".", 1)[0])] for name in names]
    longest = max((len(numbers) for numbers in found), default=0)
    places = [*range(longest), *range(-longest, 0)]

    def told_apart(place: int) -> int:
        return len({_at(numbers, place) for numbers in found} - {None})

    best = max(places, key=told_apart, default=0)
    return tuple(_at(numbers, best) for numbers in found)


def _at(numbers: list[int], place: int) -> int | None:
    return numbers[place] if -len(numbers) <= place < len(numbers) else None


def _is_greeting(slide: Slide) -> bool:
    """Whether a slide is only a recording: a greeting or a farewell needs no voice."""
    return slide.bare and len(slide.objects) == 1 and isinstance(slide.objects[0], Clip)


def _picture_file(show: Show, slide: Slide) -> str:
    """The file name of a slide's first picture; "" where it has none."""
    picture = next((item for item in slide.objects if isinstance(item, Picture)), None)
    asset = show.asset(picture.asset_id) if picture else None
    return f"{asset.name}." if asset else ""


def slide_numbers(show: Show, wanted: Sequence[int | None]) -> dict[int, int]:
    """The place of each slide that can have a voice, by number.

    Numbers come from the pictures' file names where at least two slides have one, all different, and at least one is
    among the wanted ones. Otherwise slides count from 0 where 0 is wanted, and from 1 where it is not.
    """
    places = [at for at, slide in enumerate(show.slides) if not _is_greeting(slide)]
    own = dict(zip(places, numbers_in([_picture_file(show, show.slides[at]) for at in places]), strict=True))
    numbered = {number: at for at, number in own.items() if number is not None}
    count = sum(1 for number in own.values() if number is not None)
    if count >= 2 and len(numbered) == count and numbered.keys() & set(wanted):
        return numbered
    first = 0 if 0 in wanted else 1
    return {first + index: at for index, at in enumerate(places)}


def pair_voices(names: Sequence[str], show: Show) -> tuple[Pairing, ...]:
    """A row for each slide that can have a voice, in order, then one for each file without a slide.

    Where two files have one number, the first in alphabetical order counts and the other is reported. A gap in the
    numbers is reported at its slide.
    """
    numbers = numbers_in(names)
    slides = slide_numbers(show, numbers)
    taken: dict[int, int] = {}
    loose: list[Pairing] = []
    for at in sorted(range(len(names)), key=lambda at: (names[at].casefold(), at)):
        number = numbers[at]
        if number is None:
            loose.append(Pairing(slide=None, file=at, trouble="has no number in its name"))
        elif number in taken:
            loose.append(
                Pairing(slide=None, file=at, trouble=f"has the number {number}, as “{names[taken[number]]}” has")
            )
        elif number not in slides:
            taken[number] = at
            loose.append(Pairing(slide=None, file=at, trouble=f"is number {number}: {_span(slides)}"))
        else:
            taken[number] = at
    most = max((number for number in taken if number in slides), default=0)
    rows = []
    for number, place in sorted(slides.items(), key=lambda entry: entry[1]):
        file = taken.get(number)
        missing = file is None and number < most
        rows.append(Pairing(slide=place, file=file, trouble=f"number {number} is missing" if missing else ""))
    return (*rows, *loose)


def _span(slides: dict[int, int]) -> str:
    """The numbers of the slides, in words."""
    if not slides:
        return "there is no slide for it"
    return f"the {count_text(len(slides), 'slide')} have the numbers {min(slides)} to {max(slides)}"
