"""The hand-written types of what the server sends (types/*.d.ts) have the names of the fields that it sends."""

import re
from pathlib import Path
from typing import Any

import msgspec

from ritornel.core.document import Asset
from tests.web.cast import CastTest

TYPES = Path(__file__).resolve().parents[2] / "types"
_INTERFACE = re.compile(r"^interface (\w+)(?: extends [\w.]+)? \{\n(.*?)^\}", re.DOTALL | re.MULTILINE)
_FIELD = re.compile(r"^\t(\w+)(\??): ", re.MULTILINE)


def fields_of(interface: str) -> tuple[set[str], set[str]]:
    """The fields that an interface declares itself: those that are always there, and those that may be."""
    body = next(
        found[2]
        for file in sorted(TYPES.glob("*.d.ts"))
        for found in _INTERFACE.finditer(file.read_text())
        if found[1] == interface
    )
    fields = _FIELD.findall(body)
    return {name for name, mark in fields if not mark}, {name for name, mark in fields if mark}


class SentTypesTest(CastTest):
    def check(self, interface: str, value: dict[str, Any], known: tuple[str, ...] = ()) -> None:
        """`known`: the fields of what the interface extends."""
        always, perhaps = fields_of(interface)
        sent = set(value) - set(known)
        self.assertEqual(always - sent, set(), f"{interface} declares what is not sent")
        self.assertEqual(sent - always - perhaps, set(), f"{interface} lacks what is sent")

    def start(self, address: str) -> Any:
        return msgspec.to_builtins(self.client.get(address).context["start"])

    def test_compose_gets_what_its_types_say(self) -> None:
        start = self.start("/shows/clock/?slide=esc-s")
        self.check("ShowData", start)
        self.check("ShowSettings", start["settings"])
        self.check("SlideLine", start["slides"]["esc-s"])
        self.check("BuildLine", start["slides"]["esc-s"]["builds"][0])
        self.check("ViewedSlide", start["viewing"])
        self.check("EffectForm", start["effects"][0])
        for effect in start["effects"]:
            for control in effect["controls"]:
                self.check("Control", control)
        self.check("ShelfAsset", start["assets"][0], Asset.__struct_fields__)

    def test_record_gets_what_its_types_say(self) -> None:
        start = self.start("/shows/clock/record?section=esc-s")
        self.check("RecordData", start, ("show_id", "frame"))
        self.check("SectionLine", start["sections"][0])
        section = start["section"]
        self.check("SectionDetail", section)
        self.check("RecordedSlideLine", section["slides"][0])
        self.check("RecordedTake", section["takes"][0])

    def test_release_gets_what_its_types_say(self) -> None:
        start = self.start("/shows/clock/release")
        self.check("ReleaseData", start)
        self.check("FilmLine", start["films"][0])
        self.check("EditionLine", start["editions"][0])
        self.check("GuestLine", start["guests"][0])
        self.check("HandInLine", start["handed"][0])
