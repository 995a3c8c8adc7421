"""Names, measures and losses of OpenDocument. Its lengths become px by CSS: 96 px are an inch, 0.75 pt a px."""

import functools
import re
from collections.abc import Iterator
from fractions import Fraction
from types import MappingProxyType
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.time.milliseconds import round_half_up

_OASIS = "urn:oasis:names:tc:opendocument:xmlns:"
SPACES = MappingProxyType(
    {
        "office": f"{_OASIS}office:1.0",
        "style": f"{_OASIS}style:1.0",
        "text": f"{_OASIS}text:1.0",
        "table": f"{_OASIS}table:1.0",
        "draw": f"{_OASIS}drawing:1.0",
        "presentation": f"{_OASIS}presentation:1.0",
        "meta": f"{_OASIS}meta:1.0",
        "manifest": f"{_OASIS}manifest:1.0",
        "script": f"{_OASIS}script:1.0",
        "fo": f"{_OASIS}xsl-fo-compatible:1.0",
        "svg": f"{_OASIS}svg-compatible:1.0",
        "smil": f"{_OASIS}smil-compatible:1.0",
        "anim": f"{_OASIS}animation:1.0",
        "xlink": "http://www.w3.org/1999/xlink",
        "dc": "http://purl.org/dc/elements/1.1/",
        "xml": "http://www.w3.org/XML/1998/namespace",
    }
)
MEDIA_TYPE = "application/vnd.oasis.opendocument.presentation"
VERSION = "1.3"
_PREFIX = {uri: prefix for prefix, uri in SPACES.items()}


class Loss(msgspec.Struct, frozen=True):
    """Something that cannot be carried over: its slide, counted from 1 (0: the whole show), and words."""

    slide: int
    words: str


@functools.cache
def full(name: str) -> str:
    """`draw:page` as ElementTree writes it.

    >>> full("dc:title")
    '{http://purl.org/dc/elements/1.1/}title'
    """
    prefix, _, bare = name.partition(":")
    return f"{{{SPACES[prefix]}}}{bare}"


@functools.cache
def short(tag: str) -> str:
    """The inverse of `full`. A name in an unknown namespace gets a question mark before it."""
    uri, _, bare = tag.removeprefix("{").rpartition("}")
    return f"{_PREFIX.get(uri, '?')}:{bare}"


def attribute_of(element: Element, name: str) -> str:
    """An attribute by its short name; empty where it is missing."""
    return element.get(full(name), "")


def children_of(element: Element, *names: str) -> Iterator[Element]:
    """The children with these names."""
    wanted = {full(name) for name in names}
    return (child for child in element if child.tag in wanted)


_UNITS_PX = {"px": 1.0, "pt": 96 / 72, "pc": 16.0, "in": 96.0, "mm": 96 / 25.4, "cm": 96 / 2.54}
_LENGTH = re.compile(r"^\s*(-?\d*\.?\d+)\s*(px|pt|pc|in|mm|cm)?\s*$")
_PERCENT = re.compile(r"^\s*(-?\d*\.?\d+)\s*%\s*$")
_FAR_PX = 90_000.0


def length_px(words: str) -> float | None:
    """A length in px, or None for a value that is no length. A plain number is in px. Lengths are limited to 90 000 px.

    >>> length_px("2.54cm"), length_px("72pt"), length_px("thick")
    (96.0, 96.0, None)
    """
    match = _LENGTH.match(words)
    return max(-_FAR_PX, min(round(float(match[1]) * _UNITS_PX[match[2] or "px"], 4), _FAR_PX)) if match else None


def share(words: str) -> float | None:
    """A percentage as a share."""
    match = _PERCENT.match(words)
    return float(match[1]) / 100 if match else None


def points(px: float) -> str:
    """A length in px as OpenDocument writes it; a tenth of a px is exact.

    >>> points(1280), points(0.1)
    ('960pt', '0.075pt')
    """
    return f"{px * 0.75:.4f}".rstrip("0").rstrip(".") + "pt"


_ISO = re.compile(r"^P(?:\d+D)?T?(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?$")
_CLOCK = re.compile(r"^(?:(\d+):)?(\d+):(\d+(?:\.\d+)?)$")
_COUNT = re.compile(r"^(\d*\.?\d+)(h|min|s|ms)?$")
_COUNT_MS = {"h": 3_600_000, "min": 60_000, "s": 1000, "ms": 1}


def duration_ms(words: str) -> int | None:
    """A duration of XML Schema or a clock value of SMIL in ms, rounded half up; None for any other value, such as
    `indefinite`.

    >>> duration_ms("PT00H01M02.5S"), duration_ms("0.5s"), duration_ms("1:02"), duration_ms("next")
    (62500, 500, 62000, None)
    """
    words = words.strip()
    if (match := _ISO.match(words)) or (match := _CLOCK.match(words)):
        hours, minutes, seconds = match.groups()
    elif match := _COUNT.match(words):
        return round_half_up(Fraction(match[1]) * _COUNT_MS[match[2] or "s"])
    else:
        return None
    return round_half_up((int(hours or 0) * 3600 + int(minutes or 0) * 60 + Fraction(seconds or 0)) * 1000)


def clock_value(ms: int) -> str:
    """A time as SMIL writes it.

    >>> clock_value(1500), clock_value(2)
    ('1.5s', '0.002s')
    """
    return f"{ms / 1000:.3f}".rstrip("0").rstrip(".") + "s"


_COLOUR = re.compile(r"^#[0-9a-fA-F]{6}$")


def colour(words: str) -> str | None:
    """A colour in lower case, or None."""
    return words.lower() if _COLOUR.match(words) else None


def with_alpha(literal: str, alpha: float) -> str:
    """`#rrggbb` with an opacity; at full opacity it stays as it is."""
    return literal if alpha >= 0.998 else f"{literal}{round(max(alpha, 0) * 255):02x}"
