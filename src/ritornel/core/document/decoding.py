"""JSON to values and back. A fault names its path in the words of the file."""

import contextlib
import re
from typing import Any, TypeVar

import msgspec

from ritornel.core.errors import BadValue

T = TypeVar("T")
_PATH = re.compile(r"^(?P<what>.*?)(?: - at `(?P<path>.*)`)?$", re.DOTALL)


def _refusal(error: msgspec.ValidationError | msgspec.DecodeError, subject: str) -> BadValue:
    match = _PATH.match(str(error))
    what, path = (match["what"], match["path"] or "$") if match else (str(error), "$")
    field = path.removeprefix("$").removeprefix(".")
    where = f" at {field}" if field else ""
    return BadValue(f"{subject}: {what[:1].lower()}{what[1:]}{where}.", field)


def from_json(data: bytes | str, kind: type[T], subject: str) -> T:
    """The value in `data`. Raises BadValue naming `subject`, the fault and its path."""
    try:
        return msgspec.json.decode(data, type=kind)
    except (msgspec.ValidationError, msgspec.DecodeError) as error:
        raise _refusal(error, subject) from error


def from_builtins(value: Any, kind: Any, subject: str) -> Any:
    """The value made of dicts and lists. Raises BadValue naming `subject`, the fault and its path."""
    try:
        return msgspec.convert(value, type=kind)
    except msgspec.ValidationError as error:
        raise _refusal(error, subject) from error


def to_json(value: Any) -> bytes:
    """Compact JSON in the order of the fields.

    Values read from JSON give the same bytes again, except that a 1 read for a 1.0 is written as 1.0.
    """
    return msgspec.json.encode(value)


def to_builtins(value: Any) -> Any:
    """Dicts, lists, strings and numbers, ready for any JSON writer."""
    return msgspec.to_builtins(value)


def replace_fields(value: T, changes: dict[str, Any], kind: Any, subject: str) -> T:
    """A copy of a struct with some fields replaced by JSON-like values, checked as a whole.

    Raises BadValue for an unknown field or a value that the field cannot hold.
    """
    result: T = from_builtins({**msgspec.to_builtins(value), **changes}, kind, subject)
    return result


def make_ready() -> None:
    """Prepares all imported types of the program for decoding.

    Call it once, before there are threads: msgspec prepares a type when it first decodes one, and two threads that do
    so at once can crash the process, since one reads what the other has half made.
    """
    waiting: list[type[msgspec.Struct]] = [msgspec.Struct]
    while waiting:
        kinds = waiting.pop().__subclasses__()
        waiting += kinds
        for kind in kinds:
            if kind.__module__.startswith("ritornel."):
                # What holds something that JSON has no form for is never decoded.
                with contextlib.suppress(TypeError, NameError):
                    msgspec.json.Decoder(kind)
