"""Input is checked before it is converted: numbers in addresses, queries and headers, and JSON with everything in it.

A number with a million digits, `1e99999999`, half of a character or a list nested a hundred thousand deep is refused
here with a sentence, before it reaches code that could become slow or fail.
"""

import math
import re
from fractions import Fraction
from typing import Any

import msgspec
from django.urls import register_converter

from ritornel.core.errors import BadValue

LARGEST = 2**53 - 1
"""The largest whole number that JavaScript and JSON writers agree on."""
DEEPEST = 40
"""How deep JSON may be nested; a show's own is 12 deep."""
_WHOLE = re.compile(r"[0-9]{1,15}", re.ASCII)
_RATE = re.compile(r"[0-9]{1,6}(?:\.[0-9]{1,6}|/[0-9]{1,6})?", re.ASCII)


def json_object(data: bytes | str, what: str = "The request") -> dict[str, Any]:
    """The JSON object in `data`. Raises BadValue for anything else, and for values outside all limits."""
    try:
        value = msgspec.json.decode(data)
    except (msgspec.DecodeError, UnicodeError, RecursionError) as error:
        raise BadValue(f"{what} is not JSON.") from error
    if not isinstance(value, dict):
        raise BadValue(f"{what} is not a JSON object.")
    check_value(value)
    return value


def check_value(value: Any, path: str = "", depth: int = 0) -> None:
    """Refuses enormous numbers, invalid text and too many levels. Raises BadValue naming the path."""
    if depth > DEEPEST:
        raise BadValue(f"The request is nested more than {DEEPEST} levels deep.", path)
    if isinstance(value, dict):
        for name, entry in value.items():
            check_value(name, path, depth + 1)
            check_value(entry, f"{path}.{name}".lstrip("."), depth + 1)
    elif isinstance(value, list):
        for number, entry in enumerate(value):
            check_value(entry, f"{path}[{number}]", depth + 1)
    elif isinstance(value, str):
        if "\x00" in value:
            raise BadValue("The text holds a sign that is no text (a null).", path)
        try:
            value.encode()
        except UnicodeEncodeError as error:
            raise BadValue("The text holds half of a character.", path) from error
    elif (
        isinstance(value, int | float)
        and not isinstance(value, bool)
        and not (math.isfinite(value) and abs(value) <= LARGEST)
    ):
        raise BadValue(f"The number is beyond all measure; at most {LARGEST} can be held.", path)


def whole_number(text: str, least: int = 0, most: int = LARGEST) -> int | None:
    """The whole number in a query or header; None where it is no number or outside these bounds."""
    if not _WHOLE.fullmatch(text):
        return None
    value = int(text)
    return value if least <= value <= most else None


def rate_of(value: Any) -> Fraction:
    """A rate in frames a second, exactly: 30, "29.97" or "30000/1001". Raises BadValue."""
    text = (
        value
        if isinstance(value, str)
        else repr(value)
        if isinstance(value, int | float) and not isinstance(value, bool)
        else ""
    )
    if not _RATE.fullmatch(text) or (("/" in text) and int(text.partition("/")[2]) == 0):
        raise BadValue("The film's size and rate must be numbers: a rate is 30, 29.97 or 30000/1001.", "rate")
    return Fraction(text)


class _Converter:
    """A part of an address: matched as a whole, so that no other text reaches a view."""

    regex = ""

    def to_python(self, value: str) -> Any:
        """The value for the view."""
        return value

    def to_url(self, value: Any) -> str:
        """The value in an address."""
        return str(value)


class _Id(_Converter):
    regex = r"[A-Za-z0-9_-]{1,40}"


class _Code(_Converter):
    regex = r"[A-Za-z0-9_-]{1,100}"


class _Signed(_Converter):
    regex = r"[A-Za-z0-9_:-]{1,600}"


class _Name(_Converter):
    regex = r"[A-Za-z0-9][A-Za-z0-9_. -]{0,99}"


class _Number(_Converter):
    regex = r"[0-9]{1,9}"

    def to_python(self, value: str) -> int:
        return int(value)


def register_converters() -> None:
    """Registers the converters for addresses: id, code, signed, name, number."""
    for name, converter in (("id", _Id), ("code", _Code), ("signed", _Signed), ("name", _Name), ("number", _Number)):
        register_converter(converter, name)
