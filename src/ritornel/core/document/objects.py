"""What can stand on a slide.

Lengths are in px of the show's frame, turns in degrees clockwise, opacity 0..1. Colours and families are literal, or
name a role of the theme (`@words`, `@heading`). A role follows the theme; a literal value was set by hand and stays
when the theme changes.
"""

from collections.abc import Callable
from fractions import Fraction
from typing import Annotated, ClassVar, Literal

import msgspec
from msgspec import Meta

from ritornel.core.document.names import Named
from ritornel.core.time.milliseconds import LONGEST_MS, round_half_up

ROLES = ("ground", "raised", "words", "soft", "accent", "second", "line")
"""The roles of colour a theme fills: the ground, what is raised from it, words, softer words, two accents, fine
lines.
"""
Colour = Annotated[str, Meta(pattern=rf"^(#[0-9a-f]{{6}}([0-9a-f]{{2}})?|@({'|'.join(ROLES)}))$")]
"""`#rrggbb` or `#rrggbbaa`, lower case, or a role such as `@accent`."""
Length = Annotated[float, Meta(ge=0, le=100_000)]
Place = Annotated[float, Meta(ge=-100_000, le=100_000)]
Share = Annotated[float, Meta(ge=0, le=1)]
Id = Annotated[str, Meta(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
Name = Annotated[str, Meta(max_length=200)]
ADDRESS_PATTERN = r"^(https?://|mailto:)\S+$"
Address = Annotated[str, Meta(max_length=2000, pattern=ADDRESS_PATTERN)]
"""Where a link may lead. Nothing that could run code."""
Destination = Annotated[str, Meta(max_length=2000, pattern=rf"{ADDRESS_PATTERN}|^#[A-Za-z0-9_-]+$")]
"""Where words may lead: to an address, to somebody's mail, or to a slide of the show (`#` and its id)."""


class Plain(msgspec.Struct, frozen=True, gc=False, tag_field="kind", tag="plain", forbid_unknown_fields=True):
    """A single colour."""

    colour: Colour


class Gradient(msgspec.Struct, frozen=True, tag_field="kind", tag="gradient", forbid_unknown_fields=True):
    """Two colours along a line through the middle; 0 degrees runs left to right, 90 top to bottom."""

    first: Colour
    second: Colour
    angle_deg: float = 90.0


class PictureBackground(msgspec.Struct, frozen=True, tag_field="kind", tag="picture", forbid_unknown_fields=True):
    """A picture that covers the whole background, with an overlay of one colour, so that text on it stays readable
    (`veil` is the overlay's opacity; 0: none).
    """

    asset_id: Id
    veil: Share = 0.0
    colour: Colour = "@ground"


class ClipBackground(PictureBackground, frozen=True, tag_field="kind", tag="clip", forbid_unknown_fields=True):
    """A clip that covers the whole background and repeats without sound while its slide lasts, under the
    same overlay.
    """


Fill = Plain | Gradient
Background = Plain | Gradient | PictureBackground | ClipBackground


class Box(msgspec.Struct, frozen=True, gc=False, forbid_unknown_fields=True):
    """A place on the slide: its top left corner before turning, its size, and its turn about its centre."""

    x: Place
    y: Place
    width: Length
    height: Length
    turn_deg: Annotated[float, Meta(ge=-3600, le=3600)] = 0.0


class TextRun(msgspec.Struct, frozen=True, gc=False, forbid_unknown_fields=True, omit_defaults=True):
    """A stretch of text with one look. A field of None follows the object."""

    text: Annotated[str, Meta(max_length=100_000)]
    weight: int | None = None
    italic: bool | None = None
    colour: Colour | None = None
    underline: bool | None = None
    highlight: Colour | None = None
    link: Destination | None = None


class Paragraph(msgspec.Struct, frozen=True, gc=False, forbid_unknown_fields=True, omit_defaults=True):
    """A line as its author typed it.

    Builds of a part name it by its id. In a list it has a sign or number, and its level sets the indent.
    """

    id: Id
    runs: tuple[TextRun, ...]
    list: Literal["none", "bullets", "numbers"] = "none"
    level: Annotated[int, Meta(ge=0, le=5)] = 0

    @property
    def text(self) -> str:
        return "".join(run.text for run in self.runs)

    def linked(self, destination: Callable[[str], str | None]) -> "Paragraph":
        """The paragraph with each link replaced by `destination` of it."""
        if all(run.link is None for run in self.runs):
            return self
        runs = (
            msgspec.structs.replace(run, link=destination(run.link)) if run.link is not None else run
            for run in self.runs
        )
        return msgspec.structs.replace(self, runs=tuple(runs))


class Stroke(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A border, drawn along the middle of the outline."""

    colour: Colour
    width_px: Length = 2.0
    dash: Literal["solid", "dashed", "dotted"] = "solid"

    @property
    def dashes(self) -> tuple[float, ...]:
        """Lengths of line and gap in px. Dots are the round ends of lines without length."""
        width = self.width_px
        return {"solid": (), "dashed": (width * 3, width * 2), "dotted": (0.01, width * 2)}[self.dash]


class Shadow(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A shadow, offset by `dx` and `dy`, its edge softened over about `blur_px`."""

    dx: Place = 0.0
    dy: Place = 6.0
    blur_px: Annotated[float, Meta(ge=0, le=200)] = 16.0
    colour: Colour = "#00000059"


class GoNext(msgspec.Struct, frozen=True, tag_field="do", tag="next", forbid_unknown_fields=True):
    """A press gives the next cue."""


class GoToSlide(msgspec.Struct, frozen=True, tag_field="do", tag="slide", forbid_unknown_fields=True):
    """A press goes to a slide."""

    slide_id: Id


class OpenAddress(msgspec.Struct, frozen=True, tag_field="do", tag="address", forbid_unknown_fields=True):
    """A press opens an address in a new window."""

    address: Address


class PlaySound(msgspec.Struct, frozen=True, tag_field="do", tag="sound", forbid_unknown_fields=True):
    """A press plays a sound of the shelf once. Another press stops it."""

    asset_id: Id


class PlayClip(msgspec.Struct, frozen=True, tag_field="do", tag="clip", forbid_unknown_fields=True):
    """A press plays a clip of the same slide, whatever the running order does with it. Another press rewinds it."""

    object_id: Id


PressAction = GoNext | GoToSlide | OpenAddress | PlaySound | PlayClip


class Wings(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Where an object waits before a carry brings it on: its offset (dx, dy), its scale and its opacity."""

    dx: Place = 0.0
    dy: Place = 0.0
    scale: Annotated[float, Meta(ge=0, le=20)] = 1.0
    opacity: Share = 0.0


class PlacedObject(Named, frozen=True, gc=False, kw_only=True, forbid_unknown_fields=True):
    """What every object on a slide has.

    `place` is the place of the layout it fills, `group` the group it belongs to. `locked` and `aside` matter only while
    composing: an object that is aside cannot be selected on the stage, and plays as usual. `colour_fields` are the
    fields of a kind that hold a colour directly.
    """

    colour_fields: ClassVar[tuple[str, ...]] = ()

    lineage: str = ""
    opacity: Share = 1.0
    place: Annotated[str, Meta(max_length=40)] = ""
    group: Annotated[str, Meta(max_length=40)] = ""
    locked: bool = False
    aside: bool = False
    shadow: Shadow | None = None
    press: PressAction | None = None
    wings: Wings | None = None


class TextHolder(PlacedObject, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """The look of text. A `colour` of None leaves letters hollow within their `outline`. `overflow` says what happens
    to lines that do not fit the box: *spill* draws them outside of it, *shrink* makes letters smaller until all lines
    fit, *grow* makes the box as high as the lines.
    """

    colour_fields: ClassVar[tuple[str, ...]] = ("colour", "highlight")

    paragraphs: tuple[Paragraph, ...] = ()
    family: str = "@body"
    size_px: Annotated[float, Meta(ge=4, le=1000)] = 32.0
    weight: Literal[400, 600, 700] = 400
    italic: bool = False
    underline: bool = False
    colour: Colour | None = "@words"
    highlight: Colour | None = None
    outline: Stroke | None = None
    align: Literal["left", "centre", "right"] = "left"
    stand: Literal["top", "middle", "bottom"] = "top"
    line_spacing: Annotated[float, Meta(ge=0.5, le=4)] = 1.25
    paragraph_gap: Annotated[float, Meta(ge=0, le=4)] = 0.0
    overflow: Literal["spill", "shrink", "grow"] = "spill"

    @property
    def naming_text(self) -> str:
        """The text whose first words become its name."""
        return " ".join(paragraph.text for paragraph in self.paragraphs)


class FreeText(TextHolder, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """Text that stands on the slide without a shape around it."""


class Text(FreeText, frozen=True, tag_field="kind", tag="text", forbid_unknown_fields=True):
    """Paragraphs in a box, broken into lines as wide as the box.

    In a `growing` text, what is shown stays centred on the middle of the box while its paragraphs arrive one by one. A
    text of `credits` updates itself: its paragraphs credit the media the show uses.
    """

    id: Id
    name: Name
    box: Box
    growing: bool = False
    credits: bool = False


MOST_COLUMNS = 20
"""How many columns a table may have."""
ColumnWidth = Annotated[float, Meta(ge=0.05, le=100)]
TextAlign = Literal["left", "centre", "right"]


class TableColumn(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A column: its width as a share of all widths, and the alignment of its text (None: the table's)."""

    width: ColumnWidth = 1.0
    align: TextAlign | None = None


class Table(FreeText, frozen=True, tag_field="kind", tag="table", forbid_unknown_fields=True):
    """Text in rows and columns: each paragraph is a row, and a tab ends a cell, so that rows build one by one.

    The first row may be a heading, in bold on its own background; every second row after it may have another
    background. `stroke` is the line between rows. `stand` is the vertical place of text in its row.
    """

    colour_fields: ClassVar[tuple[str, ...]] = (*FreeText.colour_fields, "heading_fill", "band_fill")

    id: Id
    name: Name
    box: Box
    columns: Annotated[tuple[TableColumn, ...], Meta(max_length=MOST_COLUMNS)] = ()
    heading: bool = True
    heading_fill: Colour | None = "@raised"
    band_fill: Colour | None = None
    stroke: Stroke | None = Stroke("@line", 1.5)

    @property
    def naming_text(self) -> str:
        """The cells of its first row."""
        return ", ".join(self.paragraphs[0].text.split("\t")).strip(", ") if self.paragraphs else ""


class Crop(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The part of a picture that is shown, in shares of the whole picture; at least a hundredth in each direction."""

    x: Annotated[float, Meta(ge=0, le=0.99)] = 0.0
    y: Annotated[float, Meta(ge=0, le=0.99)] = 0.0
    width: Annotated[float, Meta(ge=0.01, le=1)] = 1.0
    height: Annotated[float, Meta(ge=0.01, le=1)] = 1.0


class Drift(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A slow move over a picture, from its crop to another, while its slide lasts. `still` is the crop from before it
    drifted.
    """

    ends: Crop
    pace: Literal["even", "ease in", "ease out", "ease in and out"] = "even"
    still: Crop | None = None


class Picture(PlacedObject, frozen=True, tag_field="kind", tag="picture", forbid_unknown_fields=True):
    """A picture of the shelf in a box.

    `cover` fills the box and cuts off what is outside, `contain` shows all of it, `stretch` ignores proportion. It is
    cropped first, then flipped, then fitted. A drifting picture covers its box all the time.
    """

    id: Id
    name: Name
    box: Box
    asset_id: Id
    fit: Literal["cover", "contain", "stretch"] = "cover"
    crop: Crop = Crop()
    flip_x: bool = False
    flip_y: bool = False
    stroke: Stroke | None = None
    corner_px: Length = 0.0
    drift: Drift | None = None
    alternative: Annotated[str, Meta(max_length=2000)] = ""


class Caption(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Words that are shown between two instants of a clip's own time."""

    start_ms: Annotated[int, Meta(ge=0, le=LONGEST_MS)]
    end_ms: Annotated[int, Meta(ge=1, le=LONGEST_MS)]
    text: Annotated[str, Meta(min_length=1, max_length=1000)]


class Clip(Picture, frozen=True, tag_field="kind", tag="clip", forbid_unknown_fields=True):
    """A video in a box, fitted, cropped and bordered as a picture is: from `in_ms` to `out_ms` of its own time.

    A build of the effect `plays clip` plays it; before that it shows its picture at `poster_ms` (None: at `in_ms`),
    afterwards the last picture before `out_ms`. With `repeats` it goes on until its slide ends. With `holds` its beat
    lasts until it ends (a repeating one: for one pass); else it runs on beneath later beats. With `with_slide` it needs
    no build: it plays once, silently, on the slide's own clock from its 0 on, as a drift does; so the picture of a
    speaker keeps moving during the transition. Its sound has a level and equal-power fades at both ends of what it
    plays. At a speed other than 100 % its sound keeps its pitch. Its captions are in order and do not overlap.
    """

    out_ms: Annotated[int, Meta(ge=1, le=LONGEST_MS)] = 1
    in_ms: Annotated[int, Meta(ge=0, le=LONGEST_MS)] = 0
    poster_ms: Annotated[int, Meta(ge=0, le=LONGEST_MS)] | None = None
    muted: bool = False
    gain_db: Annotated[float, Meta(ge=-60, le=24)] = 0.0
    fade_in_ms: Annotated[int, Meta(ge=0, le=60_000)] = 0
    fade_out_ms: Annotated[int, Meta(ge=0, le=60_000)] = 0
    repeats: bool = False
    holds: bool = True
    with_slide: bool = False
    rate_pct: Annotated[int, Meta(ge=25, le=400)] = 100
    captions: tuple[Caption, ...] = ()

    @property
    def pass_ms(self) -> int:
        """How long one pass takes: (out - in) / rate, rounded half up."""
        return played_ms(max(self.out_ms - self.in_ms, 0), self.rate_pct)


LEAST_PART_MS = 40
"""The shortest part of a clip that can be shown: one picture at 25 pictures a second."""


def part_within(in_ms: int, out_ms: int, lasts_ms: int) -> tuple[int, int]:
    """A part of a clip moved into another clip that lasts `lasts_ms`, never shorter than one picture of it.

    >>> part_within(4_000, 9_000, 5_000), part_within(4_990, 9_000, 5_000), part_within(0, 9_000, 20)
    ((4000, 5000), (4960, 5000), (0, 20))
    """
    end_ms = min(out_ms, lasts_ms)
    return max(0, min(in_ms, end_ms - LEAST_PART_MS)), end_ms


def played_ms(clip_ms: int, rate_pct: int) -> int:
    """How long a stretch of a clip takes at a speed: 1 000 ms at 150 % take 667."""
    return round_half_up(Fraction(clip_ms * 100, rate_pct))


PLAYS = "plays clip"
"""The effect through which a clip plays."""


Form = Literal[
    "rectangle", "ellipse", "line", "arrow", "polygon", "star", "ring", "arch", "wheel", "bracket", "bubble", "path"
]


class Shape(TextHolder, frozen=True, tag_field="kind", tag="shape", forbid_unknown_fields=True):
    """A drawn form in a box, with text inside if wanted.

    `points` counts a polygon's corners, a star's tips or a wheel's teeth. `hollow` is the inner radius of a star, ring,
    arch or wheel as a share of the outer one, or the thickness of an arrow's shaft. A bubble's tail ends at (`tail_x`,
    `tail_y`), in shares of the box; it may lie outside. A line has `heads` at its ends. `path` is an outline in SVG's
    syntax (M, L, C, Z, absolute) in shares of the box.
    """

    id: Id
    name: Name
    box: Box
    form: Form
    fill: Fill | None = None
    stroke: Stroke | None = None
    corner_px: Length = 0.0
    points: Annotated[int, Meta(ge=3, le=96)] = 5
    hollow: Annotated[float, Meta(ge=0.02, le=0.98)] = 0.6
    tail_x: Annotated[float, Meta(ge=-20, le=21)] = 0.2
    tail_y: Annotated[float, Meta(ge=-20, le=21)] = 1.35
    heads: Literal["none", "start", "end", "both"] = "none"
    path: Annotated[str, Meta(max_length=200_000, pattern=r"^([MLC](?: -?\d+(?:\.\d+)?)+|Z|\s)*$")] = ""


Object = Text | Table | Picture | Clip | Shape
