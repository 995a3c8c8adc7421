"""Slide layouts: places for content, and the look a theme gives to what fills them."""

import math
from functools import lru_cache
from types import MappingProxyType
from typing import Any, Literal

import msgspec

from ritornel.core.document.alignment import round_to_tenth
from ritornel.core.document.identity import Itself
from ritornel.core.document.objects import Background, Box, Object, Picture, PlayClip, Shape, TextHolder
from ritornel.core.document.running_order import builds_taken_along, without_objects
from ritornel.core.document.show import Frame, Show, Slide, Spare
from ritornel.core.document.theme import Theme
from ritornel.core.errors import UnknownName

Rectangle = tuple[float, float, float, float]
"""x, y, width and height in shares of the frame."""


class LayoutPlace(msgspec.Struct, frozen=True):
    """A place of a layout: the kind of its content, its look, and its box in a wide and in a tall frame."""

    name: str
    title: str
    wants: Literal["words", "picture", "clip"]
    look: Literal["title", "subtitle", "heading", "body", "caption", "credits", "picture"]
    wide: Rectangle
    tall: Rectangle


class SlideLayout(msgspec.Struct, frozen=True):
    """A layout. With `opens` its background is the theme's opening background."""

    name: str
    title: str
    places: tuple[LayoutPlace, ...]
    opens: bool = False


_HEADING = LayoutPlace("heading", "Heading", "words", "heading", (0.066, 0.1, 0.868, 0.11), (0.08, 0.07, 0.84, 0.1))
_WORDS = LayoutPlace("words", "Text", "words", "body", (0.066, 0.27, 0.868, 0.6), (0.08, 0.2, 0.84, 0.7))

LAYOUTS = MappingProxyType(
    {
        layout.name: layout
        for layout in (
            SlideLayout(
                "title",
                "Title",
                (
                    LayoutPlace("title", "Title", "words", "title", (0.066, 0.3, 0.868, 0.24), (0.08, 0.3, 0.84, 0.22)),
                    LayoutPlace(
                        "subtitle",
                        "Line under it",
                        "words",
                        "subtitle",
                        (0.066, 0.57, 0.868, 0.14),
                        (0.08, 0.54, 0.84, 0.14),
                    ),
                ),
                opens=True,
            ),
            SlideLayout("heading and text", "Heading and text", (_HEADING, _WORDS)),
            SlideLayout("heading", "Heading only", (_HEADING,)),
            SlideLayout(
                "text and picture",
                "Text and picture",
                (
                    _HEADING,
                    msgspec.structs.replace(_WORDS, wide=(0.066, 0.27, 0.4, 0.6), tall=(0.08, 0.2, 0.84, 0.28)),
                    LayoutPlace(
                        "picture", "Picture", "picture", "picture", (0.52, 0.27, 0.414, 0.6), (0.08, 0.52, 0.84, 0.4)
                    ),
                ),
            ),
            SlideLayout(
                "two columns",
                "Two columns",
                (
                    _HEADING,
                    msgspec.structs.replace(_WORDS, wide=(0.066, 0.27, 0.408, 0.6), tall=(0.08, 0.2, 0.84, 0.35)),
                    LayoutPlace(
                        "words 2", "Second text", "words", "body", (0.526, 0.27, 0.408, 0.6), (0.08, 0.58, 0.84, 0.35)
                    ),
                ),
            ),
            SlideLayout(
                "picture",
                "Picture full",
                (
                    LayoutPlace("picture", "Picture", "picture", "picture", (0, 0, 1, 1), (0, 0, 1, 1)),
                    LayoutPlace(
                        "caption", "Caption", "words", "caption", (0.066, 0.85, 0.868, 0.08), (0.08, 0.88, 0.84, 0.08)
                    ),
                ),
            ),
            SlideLayout(
                "picture alone",
                "Picture alone",
                (LayoutPlace("picture", "Picture", "picture", "picture", (0, 0, 1, 1), (0, 0, 1, 1)),),
            ),
            SlideLayout(
                "clip", "Clip full", (LayoutPlace("clip", "Clip", "clip", "picture", (0, 0, 1, 1), (0, 0, 1, 1)),)
            ),
            SlideLayout(
                "credits",
                "Closing credits",
                (
                    msgspec.structs.replace(_HEADING, wide=(0.066, 0.12, 0.868, 0.12)),
                    LayoutPlace(
                        "words", "Credits", "words", "credits", (0.066, 0.29, 0.868, 0.56), (0.08, 0.22, 0.84, 0.66)
                    ),
                ),
                opens=True,
            ),
            SlideLayout("blank", "Blank", ()),
        )
    }
)


def layout_named(name: str) -> SlideLayout:
    """The layout with this name. Raises UnknownName with the names there are."""
    if name not in LAYOUTS:
        raise UnknownName(f"There is no layout “{name}”; there are {', '.join(LAYOUTS)}.")
    return LAYOUTS[name]


def scale_of(frame: Frame) -> float:
    """How much larger than 1280 x 720 a frame is, by the side of a square of the same area. 720 x 1280 gives 1."""
    return math.sqrt(frame.width_px * frame.height_px / (1280 * 720))


def box_of(place: LayoutPlace, frame: Frame) -> Box:
    """The box of the place, in whole px of the frame."""
    shares = place.tall if frame.height_px > frame.width_px * 1.05 else place.wide
    x, y, width, height = (
        round(share * side) for share, side in zip(shares, (frame.width_px, frame.height_px) * 2, strict=True)
    )
    return Box(x, y, width, height)


def look_of(place: LayoutPlace, theme: Theme, frame: Frame) -> dict[str, Any]:
    """The fields, without the box, that the theme gives to the content of the place. Sizes are rounded to half a px."""
    if place.wants != "words":
        return {}
    heading = {
        "family": "@heading",
        "weight": theme.heading_weight,
        "italic": theme.heading_italic,
        "colour": "@words",
        "line_spacing": 1.1,
    }
    body = {
        "family": "@body",
        "weight": 400,
        "italic": False,
        "colour": "@words",
        "line_spacing": 1.35,
        "align": "left",
        "stand": "top",
    }
    looks: dict[str, dict[str, Any]] = {
        "title": {**heading, "size_px": theme.title_px, "align": theme.title_align, "stand": "bottom"},
        "heading": {**heading, "size_px": theme.heading_px, "align": "left", "stand": "middle"},
        "subtitle": {**body, "size_px": theme.body_px, "colour": "@soft", "align": theme.title_align},
        "body": {**body, "size_px": theme.body_px, "paragraph_gap": 0.5, "overflow": "shrink"},
        "caption": {**body, "size_px": theme.body_px * 0.8, "colour": "@words", "stand": "middle"},
        "credits": {
            **body,
            "size_px": theme.body_px * 0.8,
            "align": theme.title_align,
            "paragraph_gap": 0.25,
            "overflow": "shrink",
        },
    }
    look = looks[place.look]
    return {**look, "size_px": math.floor(look["size_px"] * scale_of(frame) * 2 + 0.5) / 2}


def place_of(slide: Slide, item: Object) -> LayoutPlace | None:
    """The place of the slide's layout that the object fills, if any."""
    if not item.place or slide.layout not in LAYOUTS:
        return None
    return next(
        (
            place
            for place in LAYOUTS[slide.layout].places
            if place.name == item.place and (place.wants != "words") == isinstance(item, Picture)
        ),
        None,
    )


def empty_places(slide: Slide) -> tuple[LayoutPlace, ...]:
    """The places of the slide's layout that are empty."""
    filled = {place.name for item in slide.objects if (place := place_of(slide, item))}
    return tuple(place for place in layout_named(slide.layout).places if place.name not in filled)


def ground_of(slide: Slide, theme: Theme) -> Background:
    """The slide's own background, or the one its theme gives to its layout. Colours may still be roles."""
    if slide.background is not None:
        return slide.background
    return theme.opening if layout_named(slide.layout).opens else theme.ground


def differences(slide: Slide, item: Object, theme: Theme, frame: Frame) -> dict[str, Any]:
    """The fields in which the object differs from theme and layout, with the values they give.

    An object in a place is compared with the place, its box included; any other text only by family and colour.
    """
    place = place_of(slide, item)
    wanted: dict[str, Any] = {}
    if place is not None:
        wanted = {"box": box_of(place, frame), **look_of(place, theme, frame)}
    elif isinstance(item, TextHolder) and item.paragraphs:
        wanted = {
            name: role
            for name, role in (("family", "@body"), ("colour", "@words"))
            if not str(getattr(item, name) or "@").startswith("@")
        }
    return {name: value for name, value in wanted.items() if getattr(item, name) != value}


@lru_cache(maxsize=8192)
def _may_follow(slide: Itself) -> bool:
    """Whether a slide has words that fill a place of its layout or have a colour of the theme, whatever the theme."""
    held: Slide = slide.value
    return any(
        place_of(held, item) or str(item.colour).startswith("@")
        for item in held.objects
        if isinstance(item, TextHolder) and item.paragraphs
    )


def theme_slide(show: Show) -> str | None:
    """The slide that shows a theme best: the first that follows it with text in places of its layout on the theme's own
    background, else the first with any text in its colours; None where no slide follows it.
    """
    second: str | None = None
    for slide in (slide for slide in show.slides if _may_follow(Itself(slide))):
        words = [item for item in slide.objects if isinstance(item, TextHolder) and item.paragraphs]
        following = [item for item in words if not differences(slide, item, show.theme, show.frame)]
        if slide.background is None and any(place_of(slide, item) for item in following):
            return slide.id
        if second is None and any(str(item.colour).startswith("@") for item in following):
            second = slide.id
    return second


def refit_slide(
    slide: Slide, before: tuple[Theme, Frame], after: tuple[Theme, Frame], layout: str | None = None
) -> Slide:
    """The slide for another theme, frame or layout. An object exactly in its place moves to the new place; all others
    are scaled with the frame about its middle. Content moves to the place of the same name in a new layout; content
    without a place becomes a spare, and a spare comes back where there is a place for it. A layout without places
    leaves everything where it is.
    """
    replace = msgspec.structs.replace
    old_frame, new_frame = before[1], after[1]
    target = replace(slide, layout=slide.layout if layout is None else layout_named(layout).name)
    scale = min(new_frame.width_px / old_frame.width_px, new_frame.height_px / old_frame.height_px)
    if layout is not None:
        target = _return_spares(target, new_frame)
    kept: list[Object] = []
    spares = list(target.spares)
    order = target.order
    for item in target.objects:
        old_place, new_place = place_of(slide, item), place_of(target, item)
        # What stands on a slide with a size of its own stands by that, whatever the frame.
        moved = item if old_frame == new_frame or slide.size else _scale_object(item, old_frame, new_frame, scale)
        if old_place is not None and new_place is not None:
            old = {"box": box_of(old_place, old_frame), **look_of(old_place, *before)}
            new = {"box": box_of(new_place, new_frame), **look_of(new_place, *after)}
            moved = replace(
                moved, **{name: value for name, value in new.items() if getattr(item, name) == old.get(name, value)}
            )
        elif old_place is not None and layout is not None and layout_named(layout).places:
            left = without_objects(order, {item.id})
            spares.append(Spare(moved, builds_taken_along(order, left, item.id)))
            order = left
            continue
        elif old_place is not None and layout is not None:
            moved = replace(moved, place="")
        kept.append(moved)
    gone = {spare.object.id for spare in spares}
    objects = tuple(
        replace(item, press=None) if isinstance(item.press, PlayClip) and item.press.object_id in gone else item
        for item in kept
    )
    same = objects == slide.objects and target == slide
    return slide if same else replace(target, objects=objects, order=order, spares=tuple(spares))


def _return_spares(slide: Slide, frame: Frame) -> Slide:
    """The slide with the spares that have a place again."""
    for spare in slide.spares:
        place = place_of(slide, spare.object)
        if place is not None and place in empty_places(slide):
            slide = bring_back(slide, spare, frame)
    return slide


def bring_back(slide: Slide, spare: Spare, frame: Frame) -> Slide:
    """The slide with a spare on it again, in front, its builds last: in its place where that is free, else where it
    stood.
    """
    item = spare.object
    place = place_of(slide, item)
    if place is None or place not in empty_places(slide):
        item = msgspec.structs.replace(item, place="")
    else:
        item = msgspec.structs.replace(item, box=box_of(place, frame))
    rest = tuple(other for other in slide.spares if other is not spare)
    return msgspec.structs.replace(
        slide, objects=(*slide.objects, item), order=(*slide.order, *spare.order), spares=rest
    )


def _scale_object(item: Object, old: Frame, new: Frame, scale: float) -> Object:
    box = item.box
    if (box.x, box.y, box.width, box.height) == (0, 0, old.width_px, old.height_px):
        scaled = Box(0, 0, new.width_px, new.height_px, box.turn_deg)
    else:
        left = (new.width_px - old.width_px * scale) / 2
        top = (new.height_px - old.height_px * scale) / 2
        x, y, w, h = (
            round_to_tenth(value)
            for value in (left + box.x * scale, top + box.y * scale, box.width * scale, box.height * scale)
        )
        scaled = Box(x, y, w, h, box.turn_deg)
    fields: dict[str, Any] = {"box": scaled}
    if isinstance(item, TextHolder):
        fields["size_px"] = max(4.0, round_to_tenth(item.size_px * scale))
    if isinstance(item, Picture | Shape):
        fields["corner_px"] = round_to_tenth(item.corner_px * scale)
    return msgspec.structs.replace(item, **fields)
