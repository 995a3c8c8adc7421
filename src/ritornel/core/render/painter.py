"""The server's painter: paints a frame state onto a Skia canvas. It follows tracks and decides nothing."""

from functools import lru_cache
from pathlib import Path
from typing import Any

import skia

from ritornel.core.errors import BadMedia
from ritornel.core.layout.faces import Face, shape_text
from ritornel.core.layout.marks import (
    ClipMark,
    ImageMark,
    Mark,
    ObjectDrawing,
    PartDrawing,
    PathMark,
    ShadowMark,
    TextMark,
)
from ritornel.core.motion.channels import STILL, Values
from ritornel.core.motion.depth import homography, in_depth
from ritornel.core.render.display_lists import Recordings
from ritornel.core.render.footage import ClipReader
from ritornel.core.render.masking import begin_mask, end_mask, region_of
from ritornel.core.render.outline import skia_path
from ritornel.core.render.passthrough import bare_clip
from ritornel.core.render.pictures import MediaPath as MediaPath
from ritornel.core.render.pictures import Pictures
from ritornel.core.render.strokes import filled_share, paint_colour, paint_path, pen
from ritornel.core.render.surfaces import new_surface
from ritornel.core.render.typed_letters import Typing
from ritornel.core.schedule.performance import FrameState, Layer, Performance

# What Chromium does with pictures it scales, so that both painters show the same.
_SAMPLING = skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kNearest)
_PLAIN = skia.SamplingOptions()


@lru_cache(maxsize=64)
def _typeface(path: Path) -> skia.Typeface:
    return skia.Typeface.MakeFromFile(str(path))


@lru_cache(maxsize=4096)
def _blob(text: str, face: Face, size_px: float, rtl: bool) -> skia.TextBlob | None:
    font = skia.Font(_typeface(face.path), size_px)
    font.setSubpixel(True)
    font.setHinting(skia.FontHinting.kNone)
    font.setEdging(skia.Font.Edging.kAntiAlias)
    glyphs = shape_text(text, face, size_px, rtl)
    if not glyphs.ids:
        return None
    builder = skia.TextBlobBuilder()
    builder.allocRunPos(font, list(glyphs.ids), [skia.Point(x, y) for x, y in zip(glyphs.xs, glyphs.ys, strict=True)])
    return builder.make()


class Painter:
    """Paints a performance at one output size. It keeps decoded pictures, and the last still slides as images."""

    KEPT_LAYERS = 3
    OPEN_CLIPS = 4
    """How many clips are open at a time."""

    def __init__(
        self,
        performance: Performance,
        width_px: int,
        height_px: int,
        media: MediaPath,
        pictures: Pictures | None = None,
    ) -> None:
        self.performance = performance
        self.width_px, self.height_px = width_px, height_px
        frame = performance.frame
        self.scale = min(width_px / frame.width_px, height_px / frame.height_px)
        self.left = (width_px - frame.width_px * self.scale) / 2
        self.top = (height_px - frame.height_px * self.scale) / 2
        self._media = media
        self._pictures = pictures or Pictures(media)
        self._footage: dict[str, ClipReader] = {}
        self._layers: dict[tuple[int, tuple[object, ...]], skia.Image] = {}
        self._recordings = Recordings()

    def paint(self, canvas: skia.Canvas, frame_state: FrameState) -> None:
        """Covers the whole canvas; areas outside a frame of another proportion stay black."""
        self.begin(canvas)
        carries = any(layer.ground < 1 for layer in frame_state.layers)
        several = not carries and (
            len(frame_state.layers) > 1 or any(layer.values != STILL for layer in frame_state.layers)
        )
        for layer in frame_state.layers:
            self._paint_layer(canvas, layer, keep=several)
        self.end(canvas, frame_state.blackness)

    def begin(self, canvas: skia.Canvas) -> None:
        """Begins a frame state: black, with the canvas moved and scaled to the frame."""
        canvas.clear(skia.ColorBLACK)
        self._pictures.begin()
        frame = self.performance.frame
        canvas.save()
        canvas.translate(self.left, self.top)
        canvas.scale(self.scale, self.scale)
        canvas.clipRect(skia.Rect.MakeWH(frame.width_px, frame.height_px))

    def end(self, canvas: skia.Canvas, blackness: float) -> None:
        """Ends a frame state; `blackness` says how black it has become."""
        canvas.restore()
        if blackness > 0:
            canvas.drawColor(skia.ColorSetARGB(round(blackness * 255), 0, 0, 0))

    def image(self, frame_state: FrameState) -> skia.Image:
        """The frame state as an image of the output's size."""
        surface = new_surface(self.width_px, self.height_px)
        with surface as canvas:
            self.paint(canvas, frame_state)
        return surface.makeImageSnapshot()

    def _paint_layer(self, canvas: skia.Canvas, layer: Layer, keep: bool) -> None:
        values = layer.values
        if not values.shown or values.opacity <= 0:
            return
        frame = self.performance.frame
        canvas.save()
        if in_depth(values):
            seen = homography(values, frame.width_px, frame.height_px)
            if seen is None:
                canvas.restore()
                return
            canvas.concat(skia.Matrix.MakeAll(*seen))
        else:
            _transform(canvas, values, frame.width_px / 2, frame.height_px / 2)
        region = (0.0, 0.0, float(frame.width_px), float(frame.height_px))
        edge = begin_mask(canvas, values, region)
        tinted = _begin_tint(canvas, values)
        if keep:
            # Saved: the soft edge that ends the mask is in px of the frame, not of the output.
            canvas.save()
            canvas.scale(1 / self.scale, 1 / self.scale)
            paint = skia.Paint(Alphaf=values.opacity)
            canvas.drawImage(self._still(layer), 0, 0, skia.SamplingOptions(skia.FilterMode.kLinear), paint)
            canvas.restore()
        else:
            self.paint_slide(canvas, layer)
        if tinted:
            canvas.restore()
        end_mask(canvas, edge)
        canvas.restore()

    def _still(self, layer: Layer) -> skia.Image:
        """The slide without motion as an image: in a transition only the layers move."""
        key = (layer.index, (layer.objects, layer.view, layer.ground_played))
        if key not in self._layers:
            frame = self.performance.frame
            surface = new_surface(round(frame.width_px * self.scale), round(frame.height_px * self.scale))
            with surface as canvas:
                canvas.scale(self.scale, self.scale)
                self.paint_slide(canvas, layer)
            while len(self._layers) >= self.KEPT_LAYERS:
                del self._layers[next(iter(self._layers))]
            self._layers[key] = surface.makeImageSnapshot()
        return self._layers[key]

    def paint_slide(
        self, canvas: skia.Canvas, layer: Layer, first: int = 0, end: int | None = None, ground: bool = True
    ) -> None:
        """Paints the slide's ground, if wanted, and its objects from number `first` from the back until
        before `end`.
        """
        drawing = self.performance.slides[layer.index].drawing
        values = dict(layer.objects)
        frame = self.performance.frame
        canvas.save()
        _transform(canvas, layer.view, frame.width_px / 2, frame.height_px / 2)
        veiled = _begin_group(canvas, layer.ground)
        for mark in drawing.ground if ground and layer.ground > 0 else ():
            self._paint_mark(canvas, mark, whole=Values(played=layer.ground_played))
        if veiled:
            canvas.restore()
        for item in drawing.objects[first:end]:
            own = values.get((item.object_id, None), STILL)
            if own.shown:
                self._paint_object(canvas, layer.index, item, own, values)
        canvas.restore()

    def _paint_object(
        self,
        canvas: skia.Canvas,
        index: int,
        item: ObjectDrawing,
        own: Values,
        values: dict[tuple[str, str | None], Values],
    ) -> None:
        opacity = own.opacity * item.opacity
        if opacity <= 0:
            return
        canvas.save()
        canvas.translate(item.x, item.y)
        _transform(canvas, own, item.width / 2, item.height / 2, item.turn_deg)
        edge = begin_mask(canvas, own, region_of(item))
        grouped = _begin_group(canvas, opacity, item.shadow)
        tinted = _begin_tint(canvas, own)
        parts = {part.part: values.get((item.object_id, part.part), STILL) for part in item.parts if part.part}
        whole = own.drawn >= 1 and own.typed >= 1 and all(value == STILL for value in parts.values())
        recorded = (
            self._recordings.of(index, item, lambda onto: self._paint_parts(onto, item, STILL, {})) if whole else None
        )
        if recorded is not None:
            canvas.drawPicture(recorded)
        else:
            self._paint_parts(canvas, item, own, parts)
        for begun in (tinted, grouped):
            if begun:
                canvas.restore()
        end_mask(canvas, edge)
        canvas.restore()

    def _paint_parts(self, canvas: skia.Canvas, item: ObjectDrawing, own: Values, parts: dict[str, Values]) -> None:
        typing = Typing.of(item.parts, own.typed)
        for part in item.parts:
            values = parts.get(part.part, STILL) if part.part else STILL
            if not values.shown or values.opacity <= 0:
                typing.skip(part)
                continue
            self._paint_part(canvas, item, part, values, own, typing)

    def _paint_part(
        self, canvas: skia.Canvas, item: ObjectDrawing, part: PartDrawing, values: Values, whole: Values, typing: Typing
    ) -> None:
        canvas.save()
        _transform(canvas, values, part.pivot_x, part.pivot_y)
        edge = begin_mask(canvas, values, region_of(item))
        grouped = _begin_group(canvas, values.opacity)
        tinted = _begin_tint(canvas, values)
        own = Typing.of((part,), values.typed)
        drawn = values.drawn * (1.0 if (part.part or "").startswith("+") else whole.drawn)
        for mark in part.marks:
            letters = min(typing.take(mark), own.take(mark)) if isinstance(mark, TextMark) else None
            if letters == 0 or (
                letters is None and part.part and isinstance(mark, PathMark) and min(typing.share, own.share) < 1
            ):
                continue
            self._paint_mark(canvas, mark, drawn, letters, whole)
        for begun in (tinted, grouped):
            if begun:
                canvas.restore()
        end_mask(canvas, edge)
        canvas.restore()

    def _paint_mark(
        self, canvas: skia.Canvas, mark: Mark, drawn: float = 1.0, letters: int | None = None, whole: Values = STILL
    ) -> None:
        match mark:
            case PathMark():
                paint_path(canvas, mark, drawn)
            case TextMark():
                paint_text(canvas, mark, drawn, letters)
            case ImageMark():
                canvas.save()
                if drawn < 1:
                    canvas.saveLayerAlpha(None, round(filled_share(drawn) * 255))
                if mark.clip:
                    canvas.clipPath(skia_path(mark.clip), True)
                place = (mark.x, mark.y, mark.width, mark.height)
                if whole.drift and mark.drift_to:
                    place = tuple(a + (b - a) * whole.drift for a, b in zip(place, mark.drift_to, strict=True))  # type: ignore[assignment]
                target = skia.Rect.MakeXYWH(*place)
                if mark.flip_x or mark.flip_y:
                    canvas.translate(target.centerX(), target.centerY())
                    canvas.scale(-1 if mark.flip_x else 1, -1 if mark.flip_y else 1)
                    canvas.translate(-target.centerX(), -target.centerY())
                image = (
                    self._moment(mark, whole.played, _seen_px(canvas, target))
                    if isinstance(mark, ClipMark)
                    else self._picture(mark.asset_id)
                )
                canvas.drawImageRect(
                    image, target, _PLAIN if _as_it_is(canvas, image, target) else _SAMPLING, skia.Paint(AntiAlias=True)
                )
                if drawn < 1:
                    canvas.restore()
                canvas.restore()

    def _reader(self, mark: ClipMark) -> ClipReader:
        """The open clip. Two uses of one clip share a reader; it then seeks more often and stays correct."""
        if mark.asset_id not in self._footage:
            asset = self.performance.assets.get(mark.asset_id)
            if asset is None:
                raise BadMedia(f"The clip “{mark.asset_id}” is missing, so its slide cannot be drawn.")
            while len(self._footage) >= self.OPEN_CLIPS:
                self._footage.pop(next(iter(self._footage))).close()
            self._footage[mark.asset_id] = ClipReader(self._media(asset.sha256), asset.name)
        return self._footage[mark.asset_id]

    def _moment(self, mark: ClipMark, played: float | None, size_px: tuple[int, int] | None) -> skia.Image:
        return self._reader(mark).image_at(mark.at_ms(played), size_px)

    def through(self, frame_state: FrameState) -> Any:
        """The frame as the clip's own file has it, in YUV 4:2:0 of BT.709, where a clip of the output's size is all
        that is visible; else None. Passing it through costs a tenth of painting it.
        """
        bare = bare_clip(self.performance, frame_state)
        return self._reader(bare[0]).plain_at(bare[0].at_ms(bare[1]), self.width_px, self.height_px) if bare else None

    def _picture(self, asset_id: str) -> skia.Image:
        return self._pictures.image(self.performance.assets.get(asset_id), asset_id)


def _seen_px(canvas: skia.Canvas, target: skia.Rect) -> tuple[int, int] | None:
    """The size on the canvas, in pixels, of a rectangle; None where it is turned."""
    matrix = canvas.getTotalMatrix()
    if not matrix.isScaleTranslate():
        return None
    seen = matrix.mapRect(target)
    return max(round(seen.width()), 1), max(round(seen.height()), 1)


def _as_it_is(canvas: skia.Canvas, image: skia.Image, target: skia.Rect) -> bool:
    """Whether every pixel of the image lies on one pixel of the canvas, so that no sampling is needed."""
    matrix = canvas.getTotalMatrix()
    if not matrix.isScaleTranslate():
        return False
    seen = matrix.mapRect(target)
    places = (
        seen.width() - image.width(),
        seen.height() - image.height(),
        seen.left() - round(seen.left()),
        seen.top() - round(seen.top()),
    )
    return matrix.getScaleX() > 0 and matrix.getScaleY() > 0 and all(abs(place) < 0.01 for place in places)


def _transform(canvas: skia.Canvas, values: Values, pivot_x: float, pivot_y: float, turn_deg: float = 0.0) -> None:
    """Moves, then turns and scales about the pivot, in the same order as the browser's painter."""
    turn = values.turn + turn_deg
    wide = values.scale * values.wide
    if values.x or values.y:
        canvas.translate(values.x, values.y)
    if turn or values.scale != 1 or wide != 1:
        canvas.translate(pivot_x, pivot_y)
        canvas.rotate(turn)
        canvas.scale(wide, values.scale)
        canvas.translate(-pivot_x, -pivot_y)


def _begin_group(canvas: skia.Canvas, opacity: float, shadow: ShadowMark | None = None) -> bool:
    """Begins a group with an opacity or a shadow as a whole; False where none is needed."""
    if opacity >= 1 and shadow is None:
        return False
    paint = skia.Paint(Alphaf=min(opacity, 1.0))
    if shadow is not None:
        paint.setImageFilter(
            skia.ImageFilters.DropShadow(
                shadow.dx, shadow.dy, shadow.sigma_px, shadow.sigma_px, paint_colour(shadow.colour)
            )
        )
    canvas.saveLayer(None, paint)
    return True


def _begin_tint(canvas: skia.Canvas, values: Values) -> bool:
    if values.tint <= 0 or values.colour is None:
        return False
    colour = values.colour[:7] + f"{round(min(values.tint, 1.0) * 255):02x}"
    canvas.saveLayer(
        None, skia.Paint(ColorFilter=skia.ColorFilters.Blend(paint_colour(colour), skia.BlendMode.kSrcATop))
    )
    return True


def paint_text(canvas: skia.Canvas, mark: TextMark, drawn: float = 1.0, letters: int | None = None) -> None:
    if drawn < 1:
        canvas.saveLayerAlpha(None, round(filled_share(drawn) * 255))
        paint_text(canvas, mark, 1.0, letters)
        canvas.restore()
        return
    text = mark.text if letters is None else mark.text[:letters]
    blob = _blob(text, Face(mark.family, mark.weight, mark.italic), mark.size_px, mark.rtl)
    if blob is None:
        return
    if mark.colour is not None:
        canvas.drawTextBlob(blob, mark.x, mark.baseline, skia.Paint(AntiAlias=True, Color=paint_colour(mark.colour)))
    if mark.stroke is not None and mark.stroke_px > 0:
        canvas.drawTextBlob(blob, mark.x, mark.baseline, pen(mark.stroke, mark.stroke_px, skia.Paint.kRound_Join))
