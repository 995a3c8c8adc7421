"""Text for people: counts and lists within sentences, and names on one line."""

import re
import unicodedata
from collections.abc import Sequence

_SUSPECT = re.compile(r"[\x00-\x1f\x7f-\x9f\u200b\u2028-\u202e\u2060-\u2069\ud800-\udfff\ufeff]|\s\s|^\s|\s$")
_UNSEEN = re.compile(r"[\u200b\u202a-\u202e\u2060-\u2069\ufeff]")


def count_text(count: int, noun: str, plural: str = "") -> str:
    """A number with its noun: "1 slide", "0 slides", "2 entries" (where the plural is given).

    >>> count_text(1, "slide"), count_text(0, "slide"), count_text(2, "entry", "entries")
    ('1 slide', '0 slides', '2 entries')
    """
    return f"{count} {noun if count == 1 else plural or noun + 's'}"


def megabytes_text(size: int) -> str:
    """A number of bytes in megabytes of 10^6 bytes, to a tenth: `3.4 MB`."""
    return f"{size / 1e6:.1f} MB"


def list_text(words: Sequence[str], conjunction: str = "and") -> str:
    """Words joined as in a sentence.

    >>> list_text(["A"]), list_text(["A", "B"]), list_text(["A", "B", "C"], "or")
    ('A', 'A and B', 'A, B or C')
    """
    if len(words) < 2:
        return "".join(words)
    return f"{', '.join(words[:-1])} {conjunction} {words[-1]}"


def one_line(text: str) -> str:
    """The text as one line, for titles and names.

    Line breaks, control characters and lone surrogates become spaces; invisible characters and those that change the
    direction of text are removed; runs of spaces become one; spaces at the ends are removed.

    >>> one_line("The clock\\r\\nBcc: x@y")
    'The clock Bcc: x@y'
    """
    if not _SUSPECT.search(text):
        return text
    plain = "".join(
        " " if unicodedata.category(sign) in ("Cc", "Cs", "Zl", "Zp") else sign for sign in _UNSEEN.sub("", text)
    )
    return " ".join(plain.split())


def span_text(numbers: Sequence[int]) -> str:
    """Ascending numbers in few words; consecutive numbers are joined.

    >>> span_text([3, 4, 5, 7]), span_text([2])
    ('3–5, 7', '2')
    """
    spans: list[list[int]] = []
    for number in numbers:
        if spans and number == spans[-1][1] + 1:
            spans[-1][1] = number
        else:
            spans.append([number, number])
    return ", ".join(str(first) if first == last else f"{first}–{last}" for first, last in spans)
