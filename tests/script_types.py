"""types/core.d.ts, written from the core's structs: `python -m tests.script_types`. The checker of types reads it, and
so knows the fields of what the server sends; browsers never see it. A test holds it to the structs.
"""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import msgspec
from msgspec import inspect

from ritornel.core.document.layouts import SlideLayout
from ritornel.core.document.objects import Background, Fill, Object, PressAction
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceOnCue,
    AdvanceWithVoice,
    Asset,
    Follows,
    Frame,
    OnCue,
    OwnLength,
    Show,
    ShowEnd,
    ShowStart,
    Slide,
    SlideEnd,
    SlideStart,
    Together,
)
from ritornel.core.layout.guides import Guides
from ritornel.core.layout.marks import Mark, SlideDrawing
from ritornel.core.layout.visibility import Visibility
from ritornel.core.rehearsal.beats import BeatLine
from ritornel.core.rehearsal.take import Arrived, Cued, Take
from ritornel.core.schedule.performance import PressedClip
from ritornel.core.schedule.show_schedule import ShowSchedule
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.schedule.tracks import SlideTracks
from ritornel.core.sound.events import SoundTime
from ritornel.core.sound.passes import MusicTime

PLACE = Path(__file__).resolve().parent.parent / "types/core.d.ts"
HEAD = "// Written by `python -m tests.script_types` from the structs of the core; a test holds it to them.\n\n"
ROOTS = (
    BeatLine,
    Show,
    Slide,
    Frame,
    Asset,
    SlideSchedule,
    ShowSchedule,
    SlideDrawing,
    SlideTracks,
    MusicTime,
    SoundTime,
    PressedClip,
    Take,
    Guides,
    Visibility,
    SlideLayout,
)
KINDS = {
    "Advance": AdvanceAfter | AdvanceOnCue | AdvanceWithVoice,
    "Background": Background,
    "BuildStart": Follows | OnCue | Together,
    "Fill": Fill,
    "Mark": Mark,
    "MusicEnd": OwnLength | ShowEnd | SlideEnd,
    "MusicStart": ShowStart | SlideStart,
    "PressAction": PressAction,
    "SlideObject": Object,
    "TakeEvent": Arrived | Cued,
}
"""Alternatives, with the name of what they are alternatives of: one interface. A new set of them is named here."""
PLAIN = (
    (inspect.BoolType, "boolean"),
    (inspect.IntType | inspect.FloatType, "number"),
    (inspect.StrType, "string"),
    (inspect.NoneType, "null"),
)


class TypeWriter:
    """Gathers the declarations of what is reached from the roots, each once."""

    def __init__(self) -> None:
        self._declared: dict[str, str] = {}
        self._kinds = {frozenset(_structs(inspect.type_info(kind))): name for name, kind in KINDS.items()}

    def text(self) -> str:
        """The whole file."""
        for root in ROOTS:
            self.text_of(root)
        body = "\n".join(self._declared[name] for name in sorted(self._declared))
        return f"{HEAD}declare namespace Core {{\n{body}}}\n"

    def text_of(self, kind: Any) -> str:
        """How a type is written. Raises KeyError for alternatives that have no name."""
        return self._type(inspect.type_info(kind))

    def _type(self, info: Any) -> str:
        for kind, word in PLAIN:
            if isinstance(info, kind):
                return word
        match info:
            case inspect.StructType():
                return self._struct(info)
            case inspect.UnionType():
                return self._union(info)
            case inspect.LiteralType(values):
                return " | ".join(msgspec.json.encode(value).decode() for value in values)
            case inspect.DictType(_, value_type):
                return f"{{[key: string]: {self._type(value_type)}}}"
            case inspect.TupleType(item_types):
                return f"[{', '.join(map(self._type, item_types))}]"
            case inspect.CollectionType(item_type):
                inner = self._type(item_type)
                return f"({inner})[]" if "|" in inner else f"{inner}[]"
            case _:
                return "any"

    def _union(self, info: Any) -> str:
        kinds = [one for one in info.types if isinstance(one, inspect.StructType)]
        others = [self._type(one) for one in info.types if not isinstance(one, inspect.StructType)]
        if len(kinds) < 2:
            return " | ".join([*map(self._struct, kinds), *others])
        name = self._kinds[frozenset(kind.cls for kind in kinds)]
        if name not in self._declared:
            self._declared[name] = ""
            self._declared[name] = self._interface(name, kinds)
        return " | ".join([name, *others])

    def _struct(self, info: inspect.StructType) -> str:
        name = info.cls.__name__
        if name not in self._declared:
            self._declared[name] = ""
            self._declared[name] = self._sequence(name, info) if info.array_like else self._interface(name, [info])
        return name

    def _sequence(self, name: str, info: inspect.StructType) -> str:
        fields = ", ".join(f"{field.encode_name}: {self._type(field.type)}" for field in info.fields)
        return f"  type {name} = [{fields}];\n"

    def _interface(self, name: str, kinds: list[inspect.StructType]) -> str:
        """An interface with the fields of all the kinds: who reads a field of one kind has that kind. Optional is what
        is left out where it is as usual.
        """
        types: dict[str, list[str]] = {}
        left_out: set[str] = set()
        for info in kinds:
            if info.tag_field:
                types.setdefault(info.tag_field, []).append(msgspec.json.encode(info.tag).decode())
            for field in info.fields:
                types.setdefault(field.encode_name, []).append(self._type(field.type))
                if info.cls.__struct_config__.omit_defaults and not field.required:
                    left_out.add(field.encode_name)
        lines = [
            f"    {field}{'?' if field in left_out else ''}: {' | '.join(dict.fromkeys(words))};\n"
            for field, words in types.items()
        ]
        return f"  interface {name} {{\n{''.join(lines)}  }}\n"


def _structs(info: Any) -> Iterator[type]:
    for one in info.types if isinstance(info, inspect.UnionType) else [info]:
        if isinstance(one, inspect.StructType):
            yield one.cls


if __name__ == "__main__":
    PLACE.write_text(TypeWriter().text())
