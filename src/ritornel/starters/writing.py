"""Short words for writing starters: slides whose texts fill the places of their layout in the theme's look, and shapes
in its colours.
"""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

import msgspec

from ritornel.core.document.layouts import LAYOUTS, box_of, look_of
from ritornel.core.document.objects import Box, Fill, Object, Paragraph, Picture, Plain, Shape, Stroke, Text, TextRun
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceOnCue,
    Build,
    Follows,
    Frame,
    OnCue,
    Slide,
    Together,
    Transition,
)
from ritornel.core.document.theme import Theme

BUTTON: Mapping[str, Any] = MappingProxyType(
    {"weight": 600, "colour": "@ground", "align": "centre", "stand": "middle", "corner_px": 12}
)
"""How words look on what is there to be pressed."""


class Page:
    """One slide being written. Ids begin with the page's key; builds stand in the order in which they are asked for."""

    def __init__(self, key: str, layout: str, theme: Theme, name: str, frame: Frame = Frame()) -> None:
        self.key, self.layout, self.theme, self.name, self.frame = key, layout, theme, name, frame
        self.objects: list[Object] = []
        self.order: list[Build] = []

    def _id(self, word: str) -> str:
        return f"{self.key}-{word}"

    def _put(self, item: Object) -> str:
        self.objects.append(item)
        return item.id

    def _paragraphs(self, object_id: str, lines: tuple[str, ...], kind: Any = "none") -> tuple[Paragraph, ...]:
        return tuple(Paragraph(f"{object_id}-{n}", (TextRun(line),), kind) for n, line in enumerate(lines, 1))

    def fill(self, place: str, *lines: str, kind: str = "none", **look: Any) -> str:
        """Words in a place of the layout. Returns the object's id."""
        found = next(entry for entry in LAYOUTS[self.layout].places if entry.name == place)
        object_id = self._id(place.replace(" ", ""))
        fields = {**look_of(found, self.theme, self.frame), **look}
        box = fields.pop("box", box_of(found, self.frame))
        return self._put(
            Text(
                object_id, found.title, box, place=place, paragraphs=self._paragraphs(object_id, lines, kind), **fields
            )
        )

    def picture(self, place: str, asset_id: str, alternative: str, box: Box | None = None, **look: Any) -> str:
        """A picture in a place, or in a box of its own."""
        if box is None:
            found = next(entry for entry in LAYOUTS[self.layout].places if entry.name == place)
            return self._put(
                Picture(
                    self._id(place),
                    found.title,
                    box_of(found, self.frame),
                    asset_id,
                    place=place,
                    alternative=alternative,
                    **look,
                )
            )
        return self._put(
            Picture(self._id(place), place.replace("-", " ").title(), box, asset_id, alternative=alternative, **look)
        )

    def words(
        self, word: str, box: tuple[float, float, float, float], *lines: str, size: float = 30, **look: Any
    ) -> str:
        """Words anywhere."""
        object_id = self._id(word)
        return self._put(
            Text(
                object_id,
                word.replace("-", " ").title(),
                Box(*box),
                paragraphs=self._paragraphs(object_id, lines),
                size_px=size,
                **look,
            )
        )

    def shape(
        self,
        word: str,
        form: Any,
        box: tuple[float, float, float, float],
        fill: Fill | str | None = "@second",
        stroke: str | None = None,
        px: float = 3,
        lines: tuple[str, ...] = (),
        **more: Any,
    ) -> str:
        """A shape in a colour, with words inside if `lines` are given."""
        object_id = self._id(word)
        name = word.replace("-", " ").title()
        paint = Plain(fill) if isinstance(fill, str) else fill
        border = Stroke(stroke, px) if stroke else None
        paragraphs = self._paragraphs(object_id, tuple(lines))
        return self._put(
            Shape(object_id, name, Box(*box), form, fill=paint, stroke=border, paragraphs=paragraphs, **more)
        )

    def comes(
        self,
        object_id: str,
        effect: str = "enters fade",
        on: str = "follows",
        after: int = 0,
        lasts: int = 600,
        **more: Any,
    ) -> None:
        """A build. `on`: `cue`, `together` or `follows`; `hold` is the hold before a cue."""
        number = len(self.order) + 1
        hold = more.pop("hold", None)
        starts: OnCue | Together | Follows = (
            OnCue(self._id(f"q{number}"), hold) if on == "cue" else Together() if on == "together" else Follows()
        )
        self.order.append(
            Build(
                id=self._id(f"b{number}"),
                object_id=object_id,
                effect=effect,
                starts=starts,
                after_ms=after,
                lasts_ms=lasts,
                **more,
            )
        )

    def parts(
        self, object_id: str, effect: str = "enters rise", first: str = "follows", hold: int | None = None
    ) -> None:
        """Each paragraph of a text in turn, the first on arrival."""
        item = next(entry for entry in self.objects if entry.id == object_id)
        for number, paragraph in enumerate(item.paragraphs):  # type: ignore[union-attr]
            self.comes(object_id, effect, first if number == 0 else "cue", part=paragraph.id, hold=hold)

    def slide(
        self, after: int | None = 6000, transition: tuple[str, int] = ("dissolve", 800), notes: str = "", **more: Any
    ) -> Slide:
        """The slide as it stands. `after` None: it advances on cue."""
        advance = AdvanceOnCue(self._id("out")) if after is None else AdvanceAfter(after)
        name, lasts = transition
        return Slide(
            self.key,
            self.name,
            layout=self.layout,
            advance=advance,
            transition=Transition(name, lasts),
            objects=tuple(self.objects),
            order=tuple(self.order),
            notes=notes,
            **more,
        )

    def pressed(self, object_id: str, action: Any) -> None:
        """What a press on an object does."""
        self.objects = [
            msgspec.structs.replace(item, press=action) if item.id == object_id else item for item in self.objects
        ]
