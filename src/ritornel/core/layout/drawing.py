"""A slide as marks in order. Both painters put them down without deciding anything."""

import math
from collections.abc import Callable, Mapping
from types import MappingProxyType
from typing import Any

import msgspec

from ritornel.core.document.framings import size_of
from ritornel.core.document.layouts import ground_of, layout_named, scale_of
from ritornel.core.document.objects import (
    Box,
    Clip,
    ClipBackground,
    FreeText,
    Gradient,
    Object,
    Paragraph,
    Picture,
    PictureBackground,
    Plain,
    Shadow,
    Shape,
    Stroke,
    Table,
    Text,
    TextRun,
)
from ritornel.core.document.picture_fit import fit_picture, seen_part
from ritornel.core.document.show import Asset, Frame, Show, Slide
from ritornel.core.document.theme import Furniture, Theme, colour_in, family_in, ground_in, in_theme
from ritornel.core.layout.lines import break_text, move_part, text_of
from ritornel.core.layout.marks import (
    ClipMark,
    ImageMark,
    Mark,
    ObjectDrawing,
    PartDrawing,
    PathMark,
    Shade,
    ShadowMark,
    SlideDrawing,
)
from ritornel.core.layout.outlines import ellipse, line_with_heads, outline_of, rectangle, words_box
from ritornel.core.layout.tables import set_table


class Scenery(msgspec.Struct, frozen=True):
    """What all slides of a show share: the frame, theme and furniture, and the assets by id."""

    frame: Frame
    theme: Theme
    furniture: Furniture
    assets: Mapping[str, Asset]


def assets_of(show: Show) -> dict[str, Asset]:
    """The show's assets by id."""
    return {asset.id: asset for asset in show.assets}


def scenery_of(show: Show) -> Scenery:
    """The show's scenery."""
    return Scenery(show.frame, show.theme, show.furniture, assets_of(show))


def shade_of(fill: Plain | Gradient, width: float, height: float) -> str | Shade:
    """The fill of a box of this size. A gradient's line is as long as the box is wide in its direction (as in CSS)."""
    if isinstance(fill, Plain):
        return fill.colour
    angle = math.radians(fill.angle_deg)
    dx, dy = math.cos(angle), math.sin(angle)
    reach = (abs(width * dx) + abs(height * dy)) / 2
    cx, cy = width / 2, height / 2
    return Shade(
        fill.first,
        fill.second,
        *(round(v, 3) for v in (cx - dx * reach, cy - dy * reach, cx + dx * reach, cy + dy * reach)),
    )


def _stroked(d: str, fill: str | Shade | None, stroke: Stroke | None) -> PathMark:
    if stroke is None:
        return PathMark(d, fill)
    return PathMark(d, fill, stroke.colour, stroke.width_px, stroke.dashes, stroke.dash == "dotted")


def _placed(asset_id: str, place: tuple[float, float, float, float]) -> dict[str, Any]:
    """The fields of a mark that say which picture stands where."""
    x, y, width, height = place
    return {"asset_id": asset_id, "x": x, "y": y, "width": width, "height": height}


def _picture_parts(picture: Picture, assets: Mapping[str, Asset]) -> tuple[PartDrawing, ...]:
    box = picture.box
    asset = assets.get(picture.asset_id)
    size = (asset.width_px, asset.height_px) if asset else (0, 0)
    edge = rectangle(*seen_part(picture, *size), picture.corner_px)
    whole = picture.crop.width == 1 and picture.crop.height == 1
    clip = "" if whole and picture.corner_px == 0 and picture.fit != "cover" and picture.drift is None else edge
    drift_to = fit_picture(msgspec.structs.replace(picture, crop=picture.drift.ends), *size) if picture.drift else None
    placed: dict[str, Any] = {
        **_placed(picture.asset_id, fit_picture(picture, *size)),
        "clip": clip,
        "flip_x": picture.flip_x,
        "flip_y": picture.flip_y,
        "drift_to": drift_to,
    }
    marks: list[Mark] = [ImageMark(**placed)]
    if isinstance(picture, Clip):
        mark = ClipMark(
            **placed,
            in_ms=picture.in_ms,
            out_ms=picture.out_ms,
            poster_ms=picture.in_ms if picture.poster_ms is None else picture.poster_ms,
            rate_pct=picture.rate_pct,
            captions=picture.captions,
        )
        marks = [mark]
    if picture.stroke is not None:
        marks.append(_stroked(edge, None, picture.stroke))
    return (PartDrawing(None, box.width / 2, box.height / 2, tuple(marks)),)


def _shape_marks(shape: Shape) -> tuple[Mark, ...]:
    if shape.form == "line":
        line, heads = line_with_heads(shape)
        marks = [_stroked(line, None, shape.stroke)]
        return tuple(marks + ([PathMark(heads, shape.stroke.colour)] if heads and shape.stroke else []))
    fill = shade_of(shape.fill, shape.box.width, shape.box.height) if shape.fill and shape.form != "bracket" else None
    return (_stroked(outline_of(shape), fill, shape.stroke),)


class ObjectParts(msgspec.Struct, frozen=True, kw_only=True):
    """The drawing of a kind of object: its parts, its height, the height its text needs, the size of its letters, and
    the characters that no font has.
    """

    parts: tuple[PartDrawing, ...]
    height: float
    needs_height: float
    size_px: float = 0.0
    missing: tuple[str, ...] = ()


def _draw_words(item: Text | Table, scenery: Scenery) -> ObjectParts:
    lines = set_table(item) if isinstance(item, Table) else break_text(item)
    return ObjectParts(
        parts=lines.parts,
        height=lines.needs_height if item.overflow == "grow" else item.box.height,
        needs_height=lines.needs_height,
        size_px=lines.size_px,
        missing=lines.missing,
    )


def _draw_picture(item: Picture, scenery: Scenery) -> ObjectParts:
    parts = _picture_parts(item, scenery.assets)
    return ObjectParts(parts=parts, height=item.box.height, needs_height=item.box.height)


def _draw_shape(item: Shape, scenery: Scenery) -> ObjectParts:
    box = item.box
    outline = PartDrawing(None, box.width / 2, box.height / 2, _shape_marks(item))
    if not any(paragraph.text for paragraph in item.paragraphs):
        return ObjectParts(parts=(outline,), height=box.height, needs_height=box.height)
    x, y, width, height = words_box(item)
    overflow: Any = "shrink" if item.overflow == "shrink" else "spill"
    label = break_text(text_of(item, Box(0, 0, width, height), overflow=overflow))
    return ObjectParts(
        parts=(outline, *(move_part(part, x, y) for part in label.parts)),
        height=box.height,
        needs_height=label.needs_height + 2 * y,
        size_px=label.size_px,
        missing=label.missing,
    )


_DRAW: Mapping[type, Callable[[Any, Scenery], ObjectParts]] = MappingProxyType(
    {Text: _draw_words, Table: _draw_words, Picture: _draw_picture, Clip: _draw_picture, Shape: _draw_shape}
)
"""What draws each kind of object."""


def _shadow(shadow: Shadow | None) -> ShadowMark | None:
    # The softness of a shadow is twice the standard deviation of its blur (CSS Backgrounds 3, section 6.1.1).
    return ShadowMark(shadow.dx, shadow.dy, shadow.blur_px / 2, shadow.colour) if shadow else None


def draw_object(item: Object, scenery: Scenery) -> tuple[ObjectDrawing, tuple[str, ...]]:
    """The object's drawing and the characters that no font has."""
    item = in_theme(item, scenery.theme)
    box = item.box
    made = _DRAW[type(item)](item, scenery)
    drawing = ObjectDrawing(
        object_id=item.id,
        x=box.x,
        y=box.y,
        width=box.width,
        height=made.height,
        turn_deg=box.turn_deg,
        opacity=item.opacity,
        needs_height=made.needs_height,
        parts=made.parts,
        size_px=made.size_px,
        shadow=_shadow(item.shadow),
        reach_px=_reach(item, made.needs_height),
    )
    return drawing, made.missing


def _reach(item: Object, needs: float) -> float:
    """How far beyond its box an object may be visible: half its border, a bubble's tail, lines that spill, slanted
    letters, a line's heads.
    """
    reach = 2.0
    stroke = getattr(item, "stroke", None)
    if stroke is not None:
        reach += stroke.width_px * (3.0 if isinstance(item, Shape) and item.form == "line" else 0.5)
    if isinstance(item, Shape) and item.form == "bubble":
        over_x = max(-item.tail_x, item.tail_x - 1, 0) * item.box.width
        reach += max(over_x, max(-item.tail_y, item.tail_y - 1, 0) * item.box.height)
    if isinstance(item, FreeText):
        reach += item.size_px * 0.2 + max(needs - item.box.height, 0.0)
    return round(reach, 2)


def _ground(slide: Slide, scenery: Scenery) -> list[Mark]:
    size = size_of(slide, scenery.frame)
    width, height = size.width_px, size.height_px
    ground = ground_in(scenery.theme, ground_of(slide, scenery.theme))
    whole = rectangle(0, 0, width, height)
    if isinstance(ground, PictureBackground):
        veil = f"{ground.colour[:7]}{math.floor(ground.veil * 255 + 0.5):02x}"
        asset = scenery.assets.get(ground.asset_id)
        cover = Picture("ground", "Background", Box(0, 0, width, height), ground.asset_id)
        place = (
            fit_picture(cover, asset.width_px, asset.height_px) if asset else (0.0, 0.0, float(width), float(height))
        )
        placed = _placed(ground.asset_id, place)
        image = ImageMark(**placed, clip=whole)
        if isinstance(ground, ClipBackground) and asset:
            image = ClipMark(**placed, clip=whole, out_ms=max(asset.lasts_ms, 1))
        marks: list[Mark] = [PathMark(whole, ground.colour[:7]), image]
        return marks + ([PathMark(whole, veil)] if ground.veil else [])
    return [PathMark(whole, shade_of(ground, width, height))]


def _ornaments(slide: Slide, scenery: Scenery) -> list[Mark]:
    """The theme's ornaments. A slide with a background or size of its own, or filled by a picture, has none."""
    layout = layout_named(slide.layout)
    if slide.background is not None or layout.name in ("picture", "clip") or slide.size is not None:
        return []
    kinds = {"all", "openings" if layout.opens else "slides"} | ({"titles"} if layout.name == "title" else set())
    width, height = scenery.frame.width_px, scenery.frame.height_px
    marks: list[Mark] = []
    for ornament in scenery.theme.ornaments:
        if ornament.on not in kinds:
            continue
        x, y, w, h = ornament.x * width, ornament.y * height, ornament.width * width, ornament.height * height
        d = rectangle(x, y, w, h) if ornament.form == "rectangle" else ellipse(x + w / 2, y + h / 2, w / 2, h / 2)
        marks.append(PathMark(d, colour_in(scenery.theme, ornament.colour)))
    return marks


FURNITURE_PX = 17.0


def _furniture(slide: Slide, scenery: Scenery, number: int) -> list[Mark]:
    """Footer on the left, number on the right, mark before the footer, in a strip at the foot of the frame. A slide
    over which the view moves has none: it would move away.
    """
    furniture, frame, theme = scenery.furniture, scenery.frame, scenery.theme
    if slide.bare or furniture == Furniture() or slide.size is not None:
        return []
    size = FURNITURE_PX * scale_of(frame)
    margin, height = frame.width_px * 0.066, size * 1.4
    top = frame.height_px - size * 2.1
    marks: list[Mark] = []
    left = margin
    asset = scenery.assets.get(furniture.mark_asset_id) if furniture.mark_asset_id else None
    if asset and asset.height_px:
        width = height * asset.width_px / asset.height_px
        marks.append(ImageMark(asset_id=asset.id, x=left, y=top, width=width, height=height))
        left += width + size * 0.6
    texts = [(furniture.footer, left, frame.width_px - margin - left - size * 4, "left")]
    if furniture.numbers:
        texts.append((str(number), frame.width_px - margin - size * 4, size * 4, "right"))
    for words, x, width, align in texts:
        if not words:
            continue
        text = Text(
            "furniture",
            "Furniture",
            Box(0, 0, width, height),
            paragraphs=(Paragraph("f", (TextRun(words),)),),
            size_px=size,
            family=family_in(theme, "@body"),
            colour=colour_in(theme, "@soft"),
            align=align,  # type: ignore[arg-type]
            stand="middle",
        )
        marks += [mark for part in break_text(text).parts for mark in move_part(part, x, top).marks]
    return marks


def draw_slide(slide: Slide, scenery: Scenery, number: int = 1) -> SlideDrawing:
    """The slide's drawing. `number` is the slide number in its furniture."""
    ground = [*_ground(slide, scenery), *_ornaments(slide, scenery), *_furniture(slide, scenery, number)]
    drawn = [draw_object(item, scenery) for item in slide.objects]
    missing = sorted({character for _, lost in drawn for character in lost})
    return SlideDrawing(slide.id, tuple(ground), tuple(item for item, _ in drawn), tuple(missing))
