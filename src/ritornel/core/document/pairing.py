"""Numbered files and the slides they belong to: what goes where, before anything happens."""

import re
from collections.abc import Sequence

import msgspec

_NUMBER = re.compile(r"\d+")


class Pairing(msgspec.Struct, frozen=True):
    """One row of the table: the slide's number from 1 (None: there is no such slide), the file's place in what was
    given (None: no file has this number), and what is wrong with it ("" where all is well).
    """

    slide: int | None
    file: int | None
    trouble: str = ""


def number_in(name: str) -> int | None:
    """The number by which a file is told: the first in its name. “03 bell (2).wav” -> 3; None where there is none."""
    found = _NUMBER.search(name.rsplit("/", 1)[-1])
    return int(found.group()) if found else None


def paired(names: Sequence[str], slides: int) -> tuple[Pairing, ...]:
    """A row for each slide in order, then one for each file that found none.

    Of two files with one number the first in alphabetical order counts, and the other is told; a number missing among
    the others is told at its slide.
    """
    taken: dict[int, int] = {}
    loose: list[Pairing] = []
    for at in sorted(range(len(names)), key=lambda at: (names[at].casefold(), at)):
        number = number_in(names[at])
        if number is None:
            loose.append(Pairing(None, at, "has no number in its name"))
        elif number in taken:
            loose.append(Pairing(None, at, f"has the number {number}, as “{names[taken[number]]}” has"))
        elif not 1 <= number <= slides:
            taken[number] = at
            loose.append(
                Pairing(
                    None,
                    at,
                    f"is number {number}, but there {'is' if slides == 1 else 'are'} {slides} "
                    f"slide{'' if slides == 1 else 's'}",
                )
            )
        else:
            taken[number] = at
    most = max((number for number in taken if number <= slides), default=0)
    rows = []
    for number in range(1, slides + 1):
        file = taken.get(number)
        rows.append(Pairing(number, file, f"number {number} is missing" if file is None and number < most else ""))
    return (*rows, *loose)
