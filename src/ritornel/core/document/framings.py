"""Slides larger than the frame, and the framings that the view flies to."""

import msgspec

from ritornel.core.document.show import Build, Frame, Framing, Slide
from ritornel.core.errors import BadValue

WHOLE = "whole"
"""What a build that takes the view back to the whole slide names in place of a framing."""
FLY = "views fly"
"""The effect that moves the view."""


class View(msgspec.Struct, frozen=True):
    """The part of a slide that fills the frame: its middle and width in px of the slide, and its turn clockwise."""

    x: float
    y: float
    width_px: float
    turn_deg: float = 0.0


def size_of(slide: Slide, frame: Frame) -> Frame:
    """The slide's size: its own, or the frame's where it has none."""
    return slide.size or frame


def whole_view(slide: Slide, frame: Frame) -> View:
    """The view that shows all of the slide.

    In a frame of 16:9, a slide of 2560 × 720 is seen 2560 wide, with a band above and below.
    """
    size = size_of(slide, frame)
    return View(
        size.width_px / 2, size.height_px / 2, max(size.width_px, size.height_px * frame.width_px / frame.height_px)
    )


def view_named(slide: Slide, name: str | None, frame: Frame) -> View:
    """The view of a framing; of the whole where `name` is None or `WHOLE`."""
    framing = slide.framing(name) if name is not None else None
    return View(framing.x, framing.y, framing.width_px, framing.turn_deg) if framing else whole_view(slide, frame)


def moves_view(build: Build) -> bool:
    """Whether the build moves the view, and no object."""
    return build.effect == FLY


def check_framings(slide: Slide, frame: Frame) -> None:
    """Raises BadValue for a framing whose middle is not on the slide."""
    size = size_of(slide, frame)
    for framing in slide.framings:
        if not (0 <= framing.x <= size.width_px and 0 <= framing.y <= size.height_px):
            raise BadValue(
                f"The framing “{framing.name}” would look past the slide: its middle, {framing.x:g}, "
                f"{framing.y:g}, is outside "
                f"{size.width_px} × {size.height_px}. Nothing was changed.",
                "framings",
            )


def without_framing(slide: Slide, framing_id: str) -> tuple[Framing, ...]:
    """The slide's framings but this one."""
    return tuple(framing for framing in slide.framings if framing.id != framing_id)
