"""Marks: the closed set of things that a painter can draw. All are in px, in the coordinates of their object's box."""

from collections.abc import Iterator

import msgspec

from ritornel.core.document.objects import Caption


class Shade(msgspec.Struct, frozen=True, tag_field="kind", tag="shade", omit_defaults=True):
    """Two colours along the line from (x1, y1) to (x2, y2)."""

    first: str
    second: str
    x1: float
    y1: float
    x2: float
    y2: float


class PathMark(msgspec.Struct, frozen=True, tag_field="kind", tag="path", omit_defaults=True):
    """An outline in SVG's path syntax, absolute M, L, C and Z only, filled and stroked.

    `dash` are lengths of line and gap in turn, empty for a solid line; `round` is for the ends of lines and dashes.
    """

    d: str
    fill: str | Shade | None = None
    stroke: str | None = None
    stroke_px: float = 0.0
    dash: tuple[float, ...] = ()
    round: bool = False


class ImageMark(msgspec.Struct, frozen=True, kw_only=True, tag_field="kind", tag="image", omit_defaults=True):
    """A picture stretched over a rectangle, mirrored where `flip_x` (left and right) or `flip_y` say so, clipped to the
    outline `clip`. Where it drifts, `drift_to` is the rectangle at the end: x, y, width and height each change evenly.
    """

    asset_id: str
    x: float
    y: float
    width: float
    height: float
    clip: str = ""
    flip_x: bool = False
    flip_y: bool = False
    drift_to: tuple[float, float, float, float] | None = None


class ClipMark(ImageMark, frozen=True, kw_only=True, tag_field="kind", tag="clip", omit_defaults=True):
    """The picture of a clip, placed as a picture is: at `poster_ms` before it plays, then from `in_ms` on, and at the
    end the last picture before `out_ms`. `captions` are shown while it plays, in the clip's own time.
    """

    in_ms: int = 0
    out_ms: int = 1
    poster_ms: int = 0
    rate_pct: int = 100
    captions: tuple[Caption, ...] = ()

    def at_ms(self, played: float | None) -> float:
        """The instant of the clip that is shown.

        The out point is never reached: a millisecond before it stands for the picture before it.
        """
        return (
            float(self.poster_ms)
            if played is None
            else min(self.in_ms + played * (self.out_ms - self.in_ms), self.out_ms - 1)
        )

    def caption_at(self, played: float | None) -> str:
        """The caption at that instant; none before it plays and after it has ended."""
        if played is None or not 0 <= played < 1:
            return ""
        at = self.at_ms(played)
        return next((caption.text for caption in self.captions if caption.start_ms <= at < caption.end_ms), "")


class TextMark(msgspec.Struct, frozen=True, kw_only=True, tag_field="kind", tag="text", omit_defaults=True):
    """A run of one line in one face and direction: its left edge, its baseline and its advance.

    A `colour` of None leaves the letters hollow; `link` is where a press on them leads.
    """

    text: str
    family: str
    weight: int
    italic: bool
    size_px: float
    colour: str | None
    x: float
    baseline: float
    advance: float
    stroke: str | None = None
    stroke_px: float = 0.0
    rtl: bool = False
    link: str | None = None


Mark = PathMark | ImageMark | ClipMark | TextMark


class PartDrawing(msgspec.Struct, frozen=True, omit_defaults=True):
    """The marks of a part (a paragraph's id), or of the whole object where `part` is None. It turns and scales about
    its pivot, the middle of its `height`.
    """

    part: str | None
    pivot_x: float
    pivot_y: float
    marks: tuple[Mark, ...]
    height: float = 0.0


class ShadowMark(msgspec.Struct, frozen=True):
    """A shadow of everything an object shows: its offset, the standard deviation of its softness, its colour."""

    dx: float
    dy: float
    sigma_px: float
    colour: str


class ObjectDrawing(msgspec.Struct, frozen=True, kw_only=True, omit_defaults=True):
    """An object ready to be painted.

    `height` is the box's own, or what the lines of a growing text need; `needs_height` is what a text would need,
    `size_px` the drawn size of its letters (0 without text), `reach_px` how far it may be visible beyond its box.
    """

    object_id: str
    x: float
    y: float
    width: float
    height: float
    turn_deg: float
    opacity: float
    needs_height: float
    parts: tuple[PartDrawing, ...]
    size_px: float = 0.0
    shadow: ShadowMark | None = None
    reach_px: float = 0.0

    def words_extent(self) -> tuple[float, float, float, float]:
        """Left, top, right and bottom of its text, in its box; without text, the box itself."""
        words = [mark for part in self.parts for mark in part.marks if isinstance(mark, TextMark)]
        if not words:
            return 0.0, 0.0, self.width, self.height
        left, right = min(mark.x for mark in words), max(mark.x + mark.advance for mark in words)
        return (
            left,
            min(mark.baseline - mark.size_px * 0.75 for mark in words),
            right,
            max(mark.baseline + mark.size_px * 0.12 for mark in words),
        )


class SlideDrawing(msgspec.Struct, frozen=True):
    """A slide's ground (its background, the theme's ornaments and the furniture) and its objects, from the back.

    `missing` are characters that no shipped font has; they are drawn as U+FFFD.
    """

    slide_id: str
    ground: tuple[Mark, ...]
    objects: tuple[ObjectDrawing, ...]
    missing: tuple[str, ...] = ()

    def marks(self) -> Iterator[Mark]:
        """All marks of the slide, from the back."""
        yield from self.ground
        for item in self.objects:
            for part in item.parts:
                yield from part.marks
