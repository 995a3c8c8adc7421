"""Where the picture of a speaker can stand on a slide without covering text."""

from collections.abc import Iterable

import msgspec

from ritornel.core.document.objects import Box, Object, TextHolder
from ritornel.core.document.show import Frame, Slide
from ritornel.core.layout.drawing import Scenery, draw_object
from ritornel.core.layout.marks import ObjectDrawing

WIDTHS_PCT = (40, 36, 32, 28, 24, 20, 16)
"""The widths that are tried, in per cent of the frame's; the first is taken where nothing is in the way."""
EDGE_PCT = 2
GAP_PCT = 1
"""How far it keeps from words and other objects, in per cent of the frame's width."""
STEPS = 12
"""How many places across and down are tried for each width."""


class Area(msgspec.Struct, frozen=True):
    """A rectangle in px of the frame."""

    left: float
    top: float
    right: float
    bottom: float

    @property
    def size_px2(self) -> float:
        """Its area, in square px."""
        return max(self.right - self.left, 0.0) * max(self.bottom - self.top, 0.0)

    def grown(self, by_px: float) -> "Area":
        """The area with a margin around it."""
        return Area(self.left - by_px, self.top - by_px, self.right + by_px, self.bottom + by_px)

    def shared(self, other: "Area") -> "Area":
        """The intersection of both; without size where they do not touch."""
        return Area(
            max(self.left, other.left),
            max(self.top, other.top),
            min(self.right, other.right),
            min(self.bottom, other.bottom),
        )


def area_of(box: Box) -> Area:
    """A box as an area; its turn is ignored."""
    return Area(box.x, box.y, box.x + box.width, box.y + box.height)


def words_area(drawing: ObjectDrawing) -> Area:
    """The area of an object's text."""
    left, top, right, bottom = drawing.words_extent()
    return Area(drawing.x + left, drawing.y + top, drawing.x + right, drawing.y + bottom)


def has_words(item: Object) -> bool:
    """Whether an object shows text."""
    return isinstance(item, TextHolder) and any(paragraph.text.strip() for paragraph in item.paragraphs)


LEAST_COVERED = 0.05
"""Less than this share of the words' area is an edge that touches."""


def covers(box: Box, words: Area) -> bool:
    """Whether a box hides a noticeable part of some text."""
    return area_of(box).shared(words).size_px2 > LEAST_COVERED * words.size_px2


def covers_words(box: Box, items: Iterable[Object], scenery: Scenery) -> bool:
    """Whether a box hides text of some of the objects."""
    return any(
        covers(box, words_area(draw_object(item, scenery)[0])) for item in items if has_words(item) and not item.aside
    )


def clear_place(
    slide: Slide, frame: Frame, scenery: Scenery, proportion: float = 3 / 4, most_pct: float = WIDTHS_PCT[0]
) -> Box:
    """The largest box, `proportion` times as high as wide, that covers no text of the slide, and none of its other
    objects where that leaves it at least a quarter of the frame wide.

    It is at most `most_pct` per cent of the frame wide. Among equals, the one nearest to the right bottom corner. Where
    text is everywhere: the smallest box, where it covers the least text.
    """
    items = [item for item in slide.objects if not item.aside]
    words = [words_area(draw_object(item, scenery)[0]) for item in items if has_words(item)]
    others = [area_of(item.box) for item in items if not has_words(item)]
    # What fills the frame is a ground to stand on, not something to step aside from.
    whole = frame.width_px * frame.height_px
    others = [area for area in others if area.size_px2 < whole * 0.8]
    gap_px = frame.width_px * GAP_PCT / 100
    words, others = ([area.grown(gap_px) for area in areas] for areas in (words, others))
    widths_pct = (most_pct, *(width for width in WIDTHS_PCT if width < most_pct))
    for kept_clear, least in (([*words, *others], min(25, most_pct)), (words, 0)):
        for width_pct in widths_pct:
            if width_pct < least:
                break
            for box in _tries(frame, width_pct, proportion):
                if not _covered(box, kept_clear):
                    return box
    return min(_tries(frame, widths_pct[-1], proportion), key=lambda box: _covered(box, words))


def _tries(frame: Frame, width_pct: float, proportion: float) -> Iterable[Box]:
    """Boxes of one width to try, from the right bottom corner to the left top."""
    width = frame.width_px * width_pct / 100
    edge = frame.width_px * EDGE_PCT / 100
    height = min(width * proportion, frame.height_px - 2 * edge)
    for down in range(STEPS, -1, -1):
        for across in range(STEPS, -1, -1):
            x = edge + (frame.width_px - 2 * edge - width) * across / STEPS
            y = edge + (frame.height_px - 2 * edge - height) * down / STEPS
            yield Box(round(x, 1), round(y, 1), round(width, 1), round(height, 1))


def _covered(box: Box, areas: Iterable[Area]) -> float:
    return sum(area_of(box).shared(area).size_px2 for area in areas)
