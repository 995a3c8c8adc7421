"""Objects of a slide as objects of a presentation's page."""

import itertools
import math
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.document.objects import (
    Box,
    Clip,
    GoNext,
    GoToSlide,
    Object,
    OpenAddress,
    Paragraph,
    Picture,
    Shape,
    Table,
    Text,
    TextHolder,
)
from ritornel.core.document.picture_fit import fit_picture, seen_part
from ritornel.core.document.show import Asset, Slide
from ritornel.core.formats.opendocument.names import points
from ritornel.core.formats.opendocument.tables import write_table
from ritornel.core.formats.opendocument.written_styles import (
    EMBEDDED,
    Dress,
    el,
    fade_border,
    fade_fill,
    letters,
    paragraphs,
    run,
    shadow,
)
from ritornel.core.layout.outlines import outline_of, words_box
from ritornel.core.layout.tables import set_table

FINE = 100
"""How many units of an outline's view box are one px: the box is in whole numbers."""
PLACES = MappingProxyType(
    {"heading": "title", "title": "title", "subtitle": "subtitle", "words": "outline", "words 2": "outline"}
)
_PARENTS = MappingProxyType(
    {"title": "Ritornel-title", "outline": "Ritornel-outline1", "subtitle": "Ritornel-subtitle"}
)
_KEPT = frozenset({"rectangle", "ellipse", "line", "path"})


def place_of(box: Box) -> dict[str, str]:
    """Place and size; for a turned box, size and transformation."""
    size = {"svg:width": points(box.width), "svg:height": points(box.height)}
    if not box.turn_deg % 360:
        return {"svg:x": points(box.x), "svg:y": points(box.y), **size}
    angle = -math.radians(box.turn_deg)
    half = box.width / 2, box.height / 2
    x = box.x + half[0] - (math.cos(angle) * half[0] + math.sin(angle) * half[1])
    y = box.y + half[1] - (-math.sin(angle) * half[0] + math.cos(angle) * half[1])
    return {**size, "draw:transform": f"rotate ({angle:.6f}) translate ({points(x)} {points(y)})"}


class Drawing:
    """Writes the objects of one slide. Losses go to `lost`."""

    def __init__(
        self,
        dress: Dress,
        assets: Mapping[str, Asset],
        addresses: Mapping[str, str],
        slide_names: Mapping[str, str],
        lost: set[str],
    ) -> None:
        self._dress, self._assets, self._addresses, self._slide_names, self._lost = (
            dress,
            assets,
            addresses,
            slide_names,
            lost,
        )

    def objects(self, slide: Slide, items: Sequence[Object], named: set[str]) -> list[Element]:
        """The elements; neighbours of one group are written as a group.

        `named` are the ids of objects and paragraphs that timing refers to.
        """
        elements: list[Element] = []
        for group, members in itertools.groupby(items, key=lambda item: item.group):
            made = [self._object(slide, item, named) for item in members]
            elements += [el("draw:g", {}, *made)] if group and len(made) > 1 else made
        return elements

    def _object(self, slide: Slide, item: Object, named: set[str]) -> Element:
        if item.opacity < 1 and isinstance(item, TextHolder) and item.paragraphs:
            self._lost.add("words that are seen through")
        if item.shadow is not None and item.shadow.blur_px:
            self._lost.add("how soft shadows are")
        if item.wings is not None:
            self._lost.add("wings")
        match item:
            case Clip():
                made = self._clip(item)
            case Picture():
                made = self._picture(item)
            case Shape():
                made = self._shape(item, slide, named)
            case Text():
                made = self._text(item, slide, named)
            case Table():
                made = self._table(item, slide, named)
        if item.id in named:
            made.set("xml:id", f"{slide.id}-{item.id}")
            made.set("draw:id", f"{slide.id}-{item.id}")
        return self._pressed(made, item)

    def _pressed(self, made: Element, item: Object) -> Element:
        match item.press:
            case OpenAddress(address):
                return el("draw:a", {"xlink:href": address, "xlink:type": "simple"}, made)
            case GoNext():
                action = {"presentation:action": "next-page"}
            case GoToSlide(slide_id) if slide_id in self._slide_names:
                action = {
                    "presentation:action": "show",
                    "xlink:href": f"#{self._slide_names[slide_id]}",
                    "xlink:type": "simple",
                }
            case None:
                return made
            case _:
                self._lost.add("presses that play a clip or a sound")
                return made
        listener = el("presentation:event-listener", {"script:event-name": "dom:click", **action})
        # Words of a shape stand after its listeners; what a frame holds stands before them, and its description after.
        at = 1 if made.tag == "draw:frame" else 0
        made.insert(at, el("office:event-listeners", {}, listener))
        return made

    def _described(self, made: Element, alternative: str) -> Element:
        if alternative:
            made.append(el("svg:desc", {}, text=alternative))
        return made

    def _text(self, item: Text, slide: Slide, named: set[str]) -> Element:
        if item.growing:
            self._lost.add("a growing list, whose lines stand where they end")
        fits = {"shrink": {"draw:fit-to-size": "shrink-to-fit"}, "grow": {"draw:auto-grow-height": "true"}}.get(
            item.overflow, {}
        )
        graphic = {
            "draw:stroke": "none",
            "draw:fill": "none",
            "draw:textarea-vertical-align": item.stand,
            "fo:padding": "0pt",
            "fo:wrap-option": "wrap",
            "draw:auto-grow-height": "false",
            **fits,
            **shadow(item.shadow),
        }
        box = el("draw:text-box", {}, *self._words(item, slide, named))
        place = PLACES.get(item.place, "") if slide.layout != "blank" else ""
        family = "presentation" if place else "graphic"
        name = self._dress.style(family, {"graphic": graphic}, _PARENTS.get(place, ""))
        styled = (
            {"presentation:style-name": name, "presentation:class": place, "presentation:user-transformed": "true"}
            if place
            else {"draw:style-name": name}
        )
        return el("draw:frame", {**styled, "draw:name": item.name, **place_of(item.box)}, box)

    def _table(self, item: Table, slide: Slide, named: set[str]) -> Element:
        if any(row.id in named for row in item.paragraphs):
            self._lost.add("rows of a table that move by themselves; the first cell of each does")
        table = write_table(item, self._dress, lambda cell, style: self._line(cell, style, slide, named))
        height = set_table(item).needs_height if item.overflow == "grow" else item.box.height
        box = msgspec.structs.replace(item.box, height=height)
        return el("draw:frame", {"draw:name": item.name, **place_of(box)}, table)

    def _words(self, item: TextHolder, slide: Slide, named: set[str]) -> list[Element]:
        if item.colour is None:
            self._lost.add("the width and colour of hollow letters")
        style = self._dress.style("paragraph", {"paragraph": paragraphs(item), "text": letters(item)})
        made = []
        for listed, following in itertools.groupby(item.paragraphs, key=lambda paragraph: paragraph.list):
            lines = list(following)
            made += (
                [self._line(line, style, slide, named) for line in lines]
                if listed == "none"
                else [self._list(lines, 0, listed, style, slide, named)]
            )
        return made

    def _list(
        self, lines: list[Paragraph], level: int, kind: str, style: str, slide: Slide, named: set[str]
    ) -> Element:
        made = el("text:list", {"text:style-name": self._dress.list_style(kind)} if level == 0 else {})
        for deeper, run_of in itertools.groupby(lines, key=lambda line: line.level > level):
            part = list(run_of)
            if not deeper:
                made.extend(el("text:list-item", {}, self._line(line, style, slide, named)) for line in part)
                continue
            if not len(made):
                made.append(el("text:list-item"))
            made[-1].append(self._list(part, level + 1, kind, style, slide, named))
        return made

    def _line(self, line: Paragraph, style: str, slide: Slide, named: set[str]) -> Element:
        made = el("text:p", {"text:style-name": style, "xml:id": f"{slide.id}-{line.id}" if line.id in named else ""})
        for stretch in line.runs:
            look = run(stretch)
            span = el("text:span", {"text:style-name": self._dress.style("text", {"text": look})} if look else {})
            _fill_words(span, stretch.text)
            link = self._destination(stretch.link) if stretch.link else ""
            made.append(el("text:a", {"xlink:href": link, "xlink:type": "simple"}, span) if link else span)
        return made

    def _destination(self, link: str) -> str:
        """A link in the format's form: a slide by its page's name; empty for a slide that is not there."""
        if not link.startswith("#"):
            return link
        name = self._slide_names.get(link[1:])
        return f"#{name}" if name else ""

    def _pictured(self, item: Picture) -> tuple[Box, dict[str, str]]:
        """The frame of a picture, and its style with the crop."""
        asset = self._assets[item.asset_id]
        if item.corner_px:
            self._lost.add("round corners of pictures")
        box, crop = item.box, item.crop
        left, top, right, bottom = crop.x, crop.y, 1 - crop.x - crop.width, 1 - crop.y - crop.height
        if item.fit == "contain":
            x, y, width, height = seen_part(item, asset.width_px, asset.height_px)
            box = _inner(box, x, y, width, height)
        elif item.fit == "cover" and asset.width_px and asset.height_px:
            x, y, width, height = fit_picture(item, asset.width_px, asset.height_px)
            left, right = max(-x / width, 0.0), max((x + width - box.width) / width, 0.0)
            top, bottom = max(-y / height, 0.0), max((y + height - box.height) / height, 0.0)
            # What is seen is measured as it lies, after it was flipped; the cut is of the picture as it is.
            left, right = (right, left) if item.flip_x else (left, right)
            top, bottom = (bottom, top) if item.flip_y else (top, bottom)
        look = {
            **self._dress.stroke(item.stroke),
            "draw:fill": "none",
            **shadow(item.shadow),
            "draw:image-opacity": f"{round(item.opacity * 100)}%",
        }
        if max(left, top, right, bottom) > 0.0005:
            sides = (top * asset.height_px, right * asset.width_px, bottom * asset.height_px, left * asset.width_px)
            look["fo:clip"] = f"rect({', '.join(points(side) for side in sides)})"
        flips = " ".join(word for word, flipped in (("horizontal", item.flip_x), ("vertical", item.flip_y)) if flipped)
        look["style:mirror"] = flips or "none"
        return box, look

    def _picture(self, item: Picture) -> Element:
        if item.drift is not None:
            self._lost.add("drifts over pictures")
        box, look = self._pictured(item)
        image = el("draw:image", {"xlink:href": self._addresses[item.asset_id], **EMBEDDED})
        made = el(
            "draw:frame",
            {
                "draw:style-name": self._dress.style("graphic", {"graphic": look}),
                "draw:name": item.name,
                **place_of(box),
            },
            image,
        )
        return self._described(made, item.alternative)

    def _clip(self, item: Clip) -> Element:
        asset = self._assets[item.asset_id]
        told = {
            "where clips begin and end": item.in_ms > 0 or item.out_ms < asset.lasts_ms,
            "levels and fades of clips": bool(item.gain_db or item.fade_in_ms or item.fade_out_ms),
            "speeds of clips": item.rate_pct != 100,
            "captions of clips": bool(item.captions),
            "how clips are cut to their box": item.fit == "cover",
        }
        self._lost.update(words for words, is_so in told.items() if is_so)
        known = {"muted": "true" if item.muted else "", "loop": "true" if item.repeats else ""}
        parts = [el("draw:param", {"draw:name": key, "draw:value": value}) for key, value in known.items() if value]
        plugin = el(
            "draw:plugin",
            {"xlink:href": self._addresses[item.asset_id], "draw:mime-type": asset.media_type, **EMBEDDED},
            *parts,
        )
        style = self._dress.style("graphic", {"graphic": {"draw:stroke": "none", "draw:fill": "none"}})
        made = el("draw:frame", {"draw:style-name": style, "draw:name": item.name, **place_of(item.box)}, plugin)
        return self._described(made, item.alternative)

    def _shape(self, item: Shape, slide: Slide, named: set[str]) -> Element:
        if item.form not in _KEPT:
            self._lost.add("forms such as stars and bubbles, which become outlines")
        inset_x, inset_y, *_ = words_box(item)
        graphic = {
            **self._dress.fill(fade_fill(item.fill, item.opacity) if item.form != "line" else None),
            **self._dress.stroke(fade_border(item.stroke, item.opacity)),
            **shadow(item.shadow),
            "draw:textarea-vertical-align": item.stand,
            "fo:padding-left": points(inset_x),
            "fo:padding-right": points(inset_x),
            "fo:padding-top": points(inset_y),
            "fo:padding-bottom": points(inset_y),
            "fo:wrap-option": "wrap",
        }
        if item.overflow == "shrink" and item.paragraphs:
            graphic["draw:fit-to-size"] = "shrink-to-fit"
        if item.form == "line" and item.heads != "none":
            graphic |= {
                f"draw:marker-{end}": self._dress.marker() for end in ("start", "end") if item.heads in (end, "both")
            }
            graphic |= {
                f"draw:marker-{end}-width": points(max((item.stroke.width_px if item.stroke else 2) * 3.8, 8))
                for end in ("start", "end")
            }
        base = {"draw:style-name": self._dress.style("graphic", {"graphic": graphic}), "draw:name": item.name}
        words = self._words(item, slide, named) if item.paragraphs else []
        box = item.box
        if item.form == "line":
            middle = box.x + box.width / 2, box.y + box.height / 2
            dx, dy = (
                box.width / 2 * part
                for part in (math.cos(math.radians(box.turn_deg)), math.sin(math.radians(box.turn_deg)))
            )
            ends = {
                "svg:x1": middle[0] - dx,
                "svg:y1": middle[1] - dy,
                "svg:x2": middle[0] + dx,
                "svg:y2": middle[1] + dy,
            }
            return el("draw:line", {**base, **{key: points(value) for key, value in ends.items()}}, *words)
        if item.form == "rectangle":
            corner = points(min(item.corner_px, box.width / 2, box.height / 2)) if item.corner_px else ""
            return el("draw:rect", {**base, "draw:corner-radius": corner, **place_of(box)}, *words)
        if item.form == "ellipse":
            return el("draw:ellipse", {**base, **place_of(box)}, *words)
        outline = " ".join(
            word if word.isalpha() else str(round(float(word) * FINE)) for word in outline_of(item).split()
        )
        view = f"0 0 {max(round(box.width * FINE), 1)} {max(round(box.height * FINE), 1)}"
        return el("draw:path", {**base, **place_of(box), "svg:viewBox": view, "svg:d": outline or "M 0 0"}, *words)


def _inner(box: Box, x: float, y: float, width: float, height: float) -> Box:
    """A part of a box. It turns with the box about the box's middle."""
    dx, dy = x + width / 2 - box.width / 2, y + height / 2 - box.height / 2
    turn = math.radians(box.turn_deg)
    middle = (
        box.x + box.width / 2 + dx * math.cos(turn) - dy * math.sin(turn),
        box.y + box.height / 2 + dx * math.sin(turn) + dy * math.cos(turn),
    )
    return msgspec.structs.replace(box, x=middle[0] - width / 2, y=middle[1] - height / 2, width=width, height=height)


def _fill_words(span: Element, text: str) -> None:
    """Text in which every second space in a row, and the first and last, is written so that it counts (OpenDocument
    1.3, part 3, 6.1.2).
    """
    last: Element | None = None
    written = ""

    def flush() -> None:
        nonlocal written
        if last is None:
            span.text = (span.text or "") + written
        else:
            last.tail = (last.tail or "") + written
        written = ""

    for index, sign in enumerate(text):
        plain = sign != " " or (0 < index < len(text) - 1 and text[index - 1] != " ")
        if sign == "\t" or not plain:
            flush()
            last = el("text:tab" if sign == "\t" else "text:s")
            span.append(last)
        elif sign.isprintable() or sign == "\u00a0":
            written += sign
    flush()
