"""Where the camera's picture stands on a slide. static/ritornel/record/placing.js has the same geometry."""

from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.document.objects import Box, Clip, Stroke
from ritornel.core.document.show import Asset, Frame

SEEN_SHAPES = ("round", "rectangle")
"""The shapes that stand on the slide; `apart` is recorded beside it."""
Share = Annotated[float, Meta(ge=0, le=100)]


class Placement(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The camera's middle in per cent of the frame across and down, and its width in per cent of the frame's width.

    A rectangle is three quarters as high as wide. `apart`: the picture is recorded, but lies on the shelf and not on
    the slide.
    """

    shape: Literal["round", "rectangle", "apart", "off"] = "off"
    across_pct: Share = 86.0
    down_pct: Share = 74.0
    size_pct: Annotated[float, Meta(ge=5, le=100)] = 20.0

    @property
    def records(self) -> bool:
        """Whether the camera is recorded at all."""
        return self.shape != "off"


def camera_box(frame: Frame, placement: Placement) -> Box:
    """The box on the slide, in px.

    Round, 86 % across, 74 % down, 20 % of 1280 × 720: 256 px wide and high around (1100.8, 532.8).
    """
    width = frame.width_px * placement.size_pct / 100
    height = width if placement.shape == "round" else width * 3 / 4
    return Box(
        frame.width_px * placement.across_pct / 100 - width / 2,
        frame.height_px * placement.down_pct / 100 - height / 2,
        width,
        height,
    )


SNAP_PCT, EDGE_PCT = 1.6, 2.0


def snap_pct(value: float, half: float) -> float:
    """A middle in per cent after snapping: to the frame's middle, or to where a picture of half width `half` keeps 2 %
    from an edge. It snaps within 1.6 %.

    >>> snap_pct(49.0, 10), snap_pct(87.0, 10), snap_pct(70.0, 10)
    (50, 88.0, 70.0)
    """
    places = (half + EDGE_PCT, 50, 100 - half - EDGE_PCT)
    return next((place for place in places if abs(place - value) < SNAP_PCT), value)


def camera_clip(frame: Frame, placement: Placement, asset: Asset, object_id: str, lasts_ms: int) -> Clip:
    """The camera's clip on a slide.

    It runs with the slide and is silent: the voice is heard instead. Both begin at the slide's 0, so lips and voice
    stay in step, also during the transition.
    """
    out_ms = max(min(lasts_ms, asset.lasts_ms), 1)
    box = camera_box(frame, placement)
    corner = box.width / 2 if placement.shape == "round" else 12.0
    return Clip(
        object_id,
        "Camera",
        box,
        asset.id,
        corner_px=corner,
        stroke=Stroke("#ffffff", 4.0),
        muted=True,
        holds=False,
        with_slide=True,
        out_ms=out_ms,
    )


STILL_MS = 250
"""A camera's picture that stands still for less than this at the end is not noticed."""


def uncovered_ms(spoken_ms: int, picture_ms: int) -> int:
    """How long the voice goes on after the camera's picture has stopped; 0 where nobody would notice.

    >>> uncovered_ms(5850, 4270), uncovered_ms(5850, 5700)
    (1580, 0)
    """
    missing = spoken_ms - picture_ms
    return missing if missing > STILL_MS else 0
