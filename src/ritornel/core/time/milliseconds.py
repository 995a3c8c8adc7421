"""Whole milliseconds: rounding, reading and writing them."""

import math
import re
from decimal import Decimal
from fractions import Fraction

from ritornel.core.errors import BadValue

LONGEST_MS = 24 * 60 * 60 * 1000
"""The longest time anything in a show may last or wait: one day."""

_BLANK = r"[ \t\u00a0\u2009\u202f]*"
_CLOCK = re.compile(
    rf"{_BLANK}(?:(?:([0-9]{{1,4}}):)?([0-9]{{1,3}}):)?([0-9]{{1,8}})(?:[.,]([0-9]{{1,20}}))?{_BLANK}s?{_BLANK}"
)


def round_half_up(value: Fraction | Decimal | float) -> int:
    """The nearest whole number, halves upwards: floor(x + 1/2). Exact for Fraction, Decimal and int.

    >>> round_half_up(Fraction(5, 2)), round_half_up(Fraction(-5, 2))
    (3, -2)
    """
    return math.floor(Fraction(value) + Fraction(1, 2))


def parse_clock_ms(text: str) -> int:
    """The whole milliseconds in `12`, `12.5`, `1:12.5`, `1:02:03` or `2.5 s`. A comma may stand for the point.

    >>> parse_clock_ms("1:12.5")
    72500

    Raises BadValue when the text is no time, or is longer than a day.
    """
    match = _CLOCK.fullmatch(text)
    if match is None:
        raise BadValue(
            f"“{text.strip()[:40]}” is not a time. Write seconds, such as 2.5, or minutes and seconds, such as 1:12."
        )
    hours, minutes, seconds, fraction = match.groups()
    whole = int(hours or 0) * 3600 + int(minutes or 0) * 60 + int(seconds)
    value_ms = whole * 1000 + round_half_up(Fraction(int(fraction or 0) * 1000, 10 ** len(fraction or "")))
    if value_ms > LONGEST_MS:
        raise BadValue(f"“{text.strip()}” is longer than a day, the longest time a show can hold.")
    return value_ms


def seconds_text(value_ms: int) -> str:
    """Seconds with as many decimals as needed, at least one: 5000 -> `5.0`, 1250 -> `1.25`."""
    text = f"{value_ms / 1000:.3f}".rstrip("0")
    return text + "0" if text.endswith(".") else text


def time_text(value_ms: int) -> str:
    """An exact time as text, in a form that can be typed: 10062 -> `10.062 s`, 72500 -> `1:12.5`, 3600000
    -> `1:00:00`.
    """
    minutes, rest_ms = divmod(value_ms, 60_000)
    if not minutes:
        return f"{seconds_text(rest_ms)} s"
    hours, minute = divmod(minutes, 60)
    seconds = f"{rest_ms // 1000:02d}{f'{rest_ms % 1000 / 1000:.3f}'[1:].rstrip('0').rstrip('.')}"
    return f"{hours}:{minute:02d}:{seconds}" if hours else f"{minute}:{seconds}"


def clock_text(value_ms: int) -> str:
    """A clock with tenths, cut and never rounded up: 74499 -> `1:14.4`, 3661000 -> `1:01:01.0`."""
    tenths = value_ms // 100
    seconds, tenth = divmod(tenths, 10)
    minutes, second = divmod(seconds, 60)
    hours, minute = divmod(minutes, 60)
    if hours:
        return f"{hours}:{minute:02d}:{second:02d}.{tenth}"
    return f"{minute}:{second:02d}.{tenth}"
