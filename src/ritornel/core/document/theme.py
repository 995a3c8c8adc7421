"""A theme: colours by role, fonts, backgrounds and ornaments.

A show contains its whole theme, so that a theme made or changed by hand travels with it.
"""

from typing import Annotated, Any, Literal

import msgspec
from msgspec import Meta

from ritornel.core.document.names import Named
from ritornel.core.document.objects import (
    ROLES,
    Background,
    Gradient,
    Id,
    Name,
    Object,
    PictureBackground,
    Plain,
    Share,
    Stroke,
    TextHolder,
)
from ritornel.core.errors import UnknownName

Literally = Annotated[str, Meta(pattern=r"^#[0-9a-f]{6}$")]
"""A colour itself, not a role."""


class Palette(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The colour of each role."""

    ground: Literally = "#f6f1e4"
    raised: Literally = "#fffdf6"
    words: Literally = "#16262e"
    soft: Literally = "#43555e"
    accent: Literally = "#8a2456"
    second: Literally = "#1f6f6b"
    line: Literally = "#cfc7b2"


class Ornament(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A small form that the theme puts on every slide with that background, or on title slides only. Places and sizes
    are shares of the frame.
    """

    x: Share
    y: Share
    width: Share
    height: Share
    colour: Annotated[str, Meta(pattern=rf"^@({'|'.join(ROLES)})$")]
    form: Literal["rectangle", "ellipse"] = "rectangle"
    on: Literal["all", "slides", "openings", "titles"] = "all"


class Theme(Named, frozen=True, forbid_unknown_fields=True):
    """`opening` is the background of title and closing slides, `ground` that of all others.

    Sizes are px in a frame of 1280 x 720.
    """

    name: Name = "Limewash"
    palette: Palette = Palette()
    heading_family: str = "Spectral"
    body_family: str = "Spectral"
    heading_weight: Literal[400, 600, 700] = 600
    heading_italic: bool = False
    title_px: Annotated[float, Meta(ge=12, le=300)] = 72.0
    heading_px: Annotated[float, Meta(ge=12, le=300)] = 52.0
    body_px: Annotated[float, Meta(ge=12, le=200)] = 30.0
    title_align: Literal["left", "centre", "right"] = "left"
    ground: Background = Plain("@ground")
    opening: Background = Plain("@ground")
    ornaments: tuple[Ornament, ...] = ()


class Furniture(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What stands on every slide: a footer, the slide's number, a small mark from the shelf."""

    footer: Annotated[str, Meta(max_length=300)] = ""
    numbers: bool = False
    mark_asset_id: Id | None = None


def colour_in(theme: Theme, colour: str) -> str:
    """The literal colour; a role is looked up in the palette."""
    if not colour.startswith("@"):
        return colour
    if colour[1:] not in ROLES:
        raise UnknownName(f"There is no role of colour “{colour}”.")
    return str(getattr(theme.palette, colour[1:]))


def family_in(theme: Theme, family: str) -> str:
    """The literal family; `@heading` and `@body` are the theme's."""
    return {"@heading": theme.heading_family, "@body": theme.body_family}.get(family, family)


def ground_in(theme: Theme, ground: Background) -> Background:
    """The background with literal colours."""
    match ground:
        case Plain(colour):
            return Plain(colour_in(theme, colour))
        case Gradient(first, second, angle):
            return Gradient(colour_in(theme, first), colour_in(theme, second), angle)
        case PictureBackground():
            return msgspec.structs.replace(ground, colour=colour_in(theme, ground.colour))


def in_theme(item: Object, theme: Theme) -> Object:
    """The object with all roles replaced by literal values, ready to be drawn."""
    fields: dict[str, Any] = {}
    stroke = getattr(item, "stroke", None)
    if stroke is not None:
        fields["stroke"] = msgspec.structs.replace(stroke, colour=colour_in(theme, stroke.colour))
    if item.shadow is not None:
        fields["shadow"] = msgspec.structs.replace(item.shadow, colour=colour_in(theme, item.shadow.colour))
    fill = getattr(item, "fill", None)
    if fill is not None:
        fields["fill"] = ground_in(theme, fill)
    for name in item.colour_fields:
        colour = getattr(item, name)
        fields[name] = colour_in(theme, colour) if colour else None
    if isinstance(item, TextHolder):
        fields |= _letters_in(item, theme)
    return msgspec.structs.replace(item, **fields) if fields else item


def _letters_in(item: TextHolder, theme: Theme) -> dict[str, Any]:
    runs = {
        id(run): msgspec.structs.replace(
            run,
            colour=colour_in(theme, run.colour) if run.colour else None,
            highlight=colour_in(theme, run.highlight) if run.highlight else None,
        )
        for paragraph in item.paragraphs
        for run in paragraph.runs
        if run.colour or run.highlight
    }
    fields: dict[str, Any] = {"family": family_in(theme, item.family)}
    if item.outline is not None:
        fields["outline"] = Stroke(colour_in(theme, item.outline.colour), item.outline.width_px, item.outline.dash)
    if runs:
        fields["paragraphs"] = tuple(
            msgspec.structs.replace(p, runs=tuple(runs.get(id(run), run) for run in p.runs)) for p in item.paragraphs
        )
    return fields


def roles_and_literals(item: Object) -> tuple[int, int]:
    """How many of the object's colours and families follow the theme, and how many are literal."""
    values: list[str | None] = []
    stroke, fill = getattr(item, "stroke", None), getattr(item, "fill", None)
    if stroke is not None:
        values.append(stroke.colour)
    if isinstance(fill, Plain):
        values.append(fill.colour)
    elif isinstance(fill, Gradient):
        values += [fill.first, fill.second]
    if isinstance(item, TextHolder) and item.paragraphs:
        values.append(item.family)
        values += [getattr(item, name) for name in item.colour_fields]
        values += [colour for p in item.paragraphs for run in p.runs for colour in (run.colour, run.highlight)]
    named = [value for value in values if value]
    follows = sum(value.startswith("@") for value in named)
    return follows, len(named) - follows
