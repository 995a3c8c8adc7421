"""Objects of a page as objects of a slide: text boxes, pictures, clips, shapes, groups."""

import math
from collections import Counter
from types import MappingProxyType
from typing import Any, Literal
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.document.layouts import LAYOUTS
from ritornel.core.document.objects import (
    Box,
    Clip,
    Crop,
    GoNext,
    GoToSlide,
    Object,
    OpenAddress,
    Picture,
    PressAction,
    Shape,
    Table,
    Text,
)
from ritornel.core.document.show import Asset, Frame
from ritornel.core.errors import BadMedia
from ritornel.core.formats.opendocument.custom_shapes import read_custom_shape
from ritornel.core.formats.opendocument.fills import fill_of, insets_of, shadow_of, stroke_of
from ritornel.core.formats.opendocument.names import attribute_of, children_of, length_px, share, short
from ritornel.core.formats.opendocument.outlines import box_of, parse_outline, polygon, shares, view_box
from ritornel.core.formats.opendocument.read_builds import Targets
from ritornel.core.formats.opendocument.read_text import BaseLook, Words, read_letters
from ritornel.core.formats.opendocument.shelf import Shelf
from ritornel.core.formats.opendocument.styles import Properties, StyleProperties, Styles
from ritornel.core.formats.opendocument.tables import read_table

MOST_OBJECTS = 400
_PLACES = MappingProxyType(
    {"title": "heading", "subtitle": "subtitle", "outline": "words", "graphic": "picture", "object": "picture"}
)
_ENDS: MappingProxyType[tuple[bool, bool], Literal["none", "start", "end", "both"]] = MappingProxyType(
    {(True, True): "both", (True, False): "start", (False, True): "end", (False, False): "none"}
)
_STAND: MappingProxyType[str, Literal["top", "middle", "bottom"]] = MappingProxyType(
    {"top": "top", "middle": "middle", "bottom": "bottom"}
)
_FURNITURE = frozenset({"header", "footer", "date-time", "page-number"})
_STRANGE = MappingProxyType(
    {"dr3d:scene": "drawings with depth", "draw:control": "form controls", "draw:caption": "captions with a line"}
)


class Source(msgspec.Struct, frozen=True):
    """What all pages of a presentation share."""

    styles: Styles
    shelf: Shelf
    frame: Frame
    scale: float
    fonts: dict[str, str]
    slide_ids: dict[str, str]


def lay_out(objects: list[Object], classes: dict[str, str]) -> tuple[str, tuple[Object, ...]]:
    """The layout for the page's own places, and the objects, each in its place.

    `classes` says which place of the page an object is in.
    """
    counts = Counter(classes.values())
    heads, words, pictures = (counts[name] for name in ("title", "outline", "graphic"))
    layout = "blank"
    if counts["subtitle"] and heads:
        layout = "title"
    elif heads and words == 2:
        layout = "two columns"
    elif heads and words:
        layout = "text and picture" if pictures else "heading and text"
    elif heads:
        layout = "heading"
    taken: set[str] = set()
    result: list[Object] = []
    for item in objects:
        place = _PLACES.get(classes.get(item.id, ""), "")
        if layout == "title" and place == "heading":
            place = "title"
        if layout == "two columns" and place == "words" and "words" in taken:
            place = "words 2"
        known = any(entry.name == place for entry in LAYOUTS[layout].places)
        fills = known and place not in taken and (place == "picture") == isinstance(item, Picture)
        taken |= {place} if fills else set()
        result.append(msgspec.structs.replace(item, place=place) if fills else item)
    return layout, tuple(result)


class ObjectReader:
    """Reads the objects of one page.

    `targets` are the names of ids, `classes` the place of the page an object is in; `footer` and `numbered` are the
    page's furniture.
    """

    def __init__(self, source: Source, master: str, slide_id: str, lost: set[str]) -> None:
        self._source, self._master, self._slide_id, self._lost = source, master, slide_id, lost
        self.objects: list[Object] = []
        self.targets: Targets = {}
        self.classes: dict[str, str] = {}
        self.footer = ""
        self.numbered = False

    def take_master(self, master: Element) -> None:
        """Reads the objects of the master: behind all others, and locked."""
        self._shapes(master, True, "")
        self.objects = [msgspec.structs.replace(item, locked=True) for item in self.objects]

    def take(self, page: Element) -> None:
        """Reads the objects of the page, up to the most that a slide may have."""
        self._shapes(page, False, "")
        if len(self.objects) > MOST_OBJECTS:
            self._lost.add(f"objects after the first {MOST_OBJECTS}")
            self.objects = self.objects[:MOST_OBJECTS]
            kept = {item.id for item in self.objects}
            self.targets = {name: target for name, target in self.targets.items() if target[0] in kept}

    def _shapes(self, parent: Element, on_master: bool, group: str) -> None:
        for element in parent:
            if len(self.objects) > MOST_OBJECTS:
                return
            kind = short(element.tag)
            if kind == "draw:g":
                self._named(element, "")
                self._shapes(element, on_master, group or f"{self._slide_id}-g{len(self.objects) + 1}")
            elif kind == "draw:a":
                before = len(self.objects)
                self._shapes(element, on_master, group)
                address = attribute_of(element, "xlink:href")
                if address.startswith(("http://", "https://", "mailto:")) and not any(
                    sign.isspace() for sign in address
                ):
                    pressed = [
                        msgspec.structs.replace(item, press=OpenAddress(address)) for item in self.objects[before:]
                    ]
                    self.objects[before:] = pressed
                else:
                    self._lost.add("a link that leads into a file")
            elif kind in _STRANGE:
                self._lost.add(_STRANGE[kind])
            elif kind.startswith("draw:"):
                self._shape(element, kind, on_master, group)

    def _shape(self, element: Element, kind: str, on_master: bool, group: str) -> None:
        placeholder = attribute_of(element, "presentation:class")
        if placeholder in _FURNITURE and not on_master:
            self.numbered |= placeholder == "page-number"
            self.footer = " ".join("".join(element.itertext()).split()) if placeholder == "footer" else self.footer
        if (
            attribute_of(element, "presentation:placeholder") == "true"
            or (on_master and placeholder)
            or placeholder in _FURNITURE
        ):
            return
        object_id = f"{self._slide_id}-o{len(self.objects) + 1}"
        presented = attribute_of(element, "presentation:style-name")
        look = self._source.styles.look(
            "presentation" if presented else "graphic", presented or attribute_of(element, "draw:style-name"), on_master
        )
        common: dict[str, Any] = {
            "group": group[:40],
            "shadow": shadow_of(look.graphic, self._source.scale),
            "press": self._press(element),
        }
        made: Object | None = None
        match kind:
            case "draw:frame":
                made = self._framed(element, object_id, look, on_master, common)
            case "draw:page-thumbnail":
                return
            case (
                "draw:rect"
                | "draw:ellipse"
                | "draw:circle"
                | "draw:custom-shape"
                | "draw:path"
                | "draw:polygon"
                | "draw:polyline"
            ):
                made = self._drawn(element, kind, object_id, look, on_master, common)
            case "draw:line" | "draw:connector" | "draw:measure":
                made = self._line(element, kind, object_id, look, common)
        if made is None:
            return
        self.objects.append(made)
        self._named(element, made.id)
        if not on_master and placeholder:
            self.classes[made.id] = placeholder if placeholder != "object" else "graphic"

    def _named(self, element: Element, object_id: str) -> None:
        for key in ("xml:id", "draw:id"):
            if (name := attribute_of(element, key)) and object_id:
                self.targets[name] = (object_id, None)

    def _title(self, element: Element, usual: str) -> str:
        return (attribute_of(element, "draw:name") or usual)[:200]

    def _alternative(self, element: Element) -> str:
        found = [" ".join("".join(entry.itertext()).split()) for entry in children_of(element, "svg:title", "svg:desc")]
        return ". ".join(filter(None, found))[:2000]

    def _press(self, element: Element) -> PressAction | None:
        for listeners in children_of(element, "office:event-listeners"):
            for entry in children_of(listeners, "presentation:event-listener"):
                match attribute_of(entry, "presentation:action"):
                    case "next-page":
                        return GoNext()
                    case "show":
                        target = attribute_of(entry, "xlink:href").removeprefix("#")
                        if target in self._source.slide_ids:
                            return GoToSlide(self._source.slide_ids[target])
                self._lost.add("what a press on an object does")
        return None

    def _framed(
        self, element: Element, object_id: str, look: StyleProperties, on_master: bool, common: dict[str, Any]
    ) -> Object | None:
        box = box_of(element, self._source.scale)
        for part in element:
            match short(part.tag):
                case "draw:text-box":
                    return self._text(element, part, object_id, box, look, on_master, common)
                case "draw:image":
                    return self._picture(element, object_id, box, look, common)
                case "draw:plugin":
                    return self._clip(element, part, object_id, box, common)
                case "table:table":
                    return self._table(element, part, object_id, box, common)
                case "draw:object" | "draw:object-ole":
                    self._lost.add("a chart, formula or foreign object, which becomes a picture")
                case "draw:applet" | "draw:floating-frame":
                    self._lost.add("a page or program inside the page")
                    return None
        return None

    def _base(self, element: Element, look: StyleProperties) -> BaseLook:
        """The look of text by level: places for text have a style of the master for each level."""
        if attribute_of(element, "presentation:class") != "outline" or not self._master:
            return lambda level: look
        stem = self._master
        return lambda level: (
            look if not level else self._source.styles.look("presentation", f"{stem}-outline{level + 1}", True)
        )

    def _lettered(
        self, element: Element, holder: Element, object_id: str, look: StyleProperties, on_master: bool
    ) -> dict[str, Any]:
        words = Words(self._source.styles, on_master, self._base(element, look), self._lost)
        lines = words.lines(holder)
        fields, named = read_letters(lines, object_id, self._source.scale, self._source.fonts, self._lost)
        self.targets |= {name: (object_id, paragraph) for name, paragraph in named.items()}
        shrinks = look.graphic.get("draw:fit-to-size") in ("true", "shrink-to-fit", "all")
        return {
            **fields,
            "overflow": "shrink" if shrinks else "spill",
            "stand": _STAND.get(look.graphic.get("draw:textarea-vertical-align", "top"), "top"),
        }

    def _text(
        self,
        element: Element,
        holder: Element,
        object_id: str,
        box: Box,
        look: StyleProperties,
        on_master: bool,
        common: dict[str, Any],
    ) -> Object | None:
        fields = self._lettered(element, holder, object_id, look, on_master)
        fill = fill_of(look.graphic, self._source.styles, self._lost)
        stroke = stroke_of(look.graphic, self._source.styles, self._source.scale)
        if (
            not any(run.text for paragraph in fields["paragraphs"] for run in paragraph.runs)
            and fill is None
            and stroke is None
        ):
            return None
        height = max(box.height, (length_px(attribute_of(holder, "fo:min-height")) or 0.0) * self._source.scale)
        box = msgspec.structs.replace(box, height=height)
        if fill is not None or stroke is not None:
            corner = (length_px(attribute_of(holder, "draw:corner-radius")) or 0.0) * self._source.scale
            filled: dict[str, Any] = {"form": "rectangle", "fill": fill, "stroke": stroke, "corner_px": corner}
            return Shape(id=object_id, name=self._title(element, "Text"), box=box, **filled, **fields, **common)
        left, top, right, bottom = insets_of(look.graphic, self._source.scale)
        inner = Box(
            box.x + left,
            box.y + top,
            max(box.width - left - right, 1.0),
            max(box.height - top - bottom, 1.0),
            box.turn_deg,
        )
        return Text(
            id=object_id, name=self._title(element, "Text"), box=inner if not box.turn_deg else box, **fields, **common
        )

    def _picture(
        self, element: Element, object_id: str, box: Box, look: StyleProperties, common: dict[str, Any]
    ) -> Object | None:
        failed: set[str] = set()
        for image in children_of(element, "draw:image"):
            found = self._source.shelf.brought(attribute_of(image, "xlink:href"), attribute_of(element, "draw:name"))
            if isinstance(found, str):
                failed.add(found)
                continue
            if found.kind != "picture":
                continue
            mirror = look.graphic.get("style:mirror", "none")
            return Picture(
                id=object_id,
                name=self._title(element, found.name),
                box=box,
                asset_id=found.id,
                fit="stretch",
                crop=self._crop(look.graphic, found),
                flip_x="horizontal" in mirror,
                flip_y="vertical" in mirror,
                stroke=stroke_of(look.graphic, self._source.styles, self._source.scale),
                opacity=_opacity(look.graphic),
                alternative=self._alternative(element),
                **common,
            )
        self._lost |= failed or {"a picture that is not in the file"}
        return None

    def _crop(self, look: Properties, asset: Asset) -> Crop:
        """`rect(top, right, bottom, left)`, lengths of the picture at 96 px an inch."""
        words = look.get("fo:clip", "auto")
        if not words.startswith("rect("):
            return Crop()
        sides = [length_px(word) or 0.0 for word in words[5:].rstrip(")").replace(",", " ").split()]
        if len(sides) != 4 or not asset.width_px or not asset.height_px:
            return Crop()
        top, right, bottom, left = sides
        x, y = max(left / asset.width_px, 0.0), max(top / asset.height_px, 0.0)
        width, height = 1 - x - max(right / asset.width_px, 0.0), 1 - y - max(bottom / asset.height_px, 0.0)
        if x > 0.99 or y > 0.99 or width < 0.01 or height < 0.01:
            self._lost.add("how a picture is cut")
            return Crop()
        return Crop(round(x, 5), round(y, 5), round(width, 5), round(height, 5))

    def _clip(
        self, element: Element, plugin: Element, object_id: str, box: Box, common: dict[str, Any]
    ) -> Object | None:
        asset = self._source.shelf.asset(
            attribute_of(plugin, "xlink:href"), attribute_of(element, "draw:name"), self._lost
        )
        if asset is None:
            return None
        if asset.kind != "clip":
            self._lost.add("a sound or page that stands on the page")
            return None
        known = {
            attribute_of(entry, "draw:name"): attribute_of(entry, "draw:value")
            for entry in children_of(plugin, "draw:param")
        }
        return Clip(
            id=object_id,
            name=self._title(element, asset.name),
            box=box,
            asset_id=asset.id,
            out_ms=asset.lasts_ms,
            muted=known.get("Mute") == "true",
            repeats=known.get("Loop") == "true",
            fit="contain",
            alternative=self._alternative(element),
            **common,
        )

    def _table(
        self, element: Element, table: Element, object_id: str, box: Box, common: dict[str, Any]
    ) -> Object | None:
        read = read_table(table, self._source.styles, False, self._source.scale, self._lost)
        if not any(piece.text.strip() for row in read.rows for piece in row.pieces):
            return None
        fields, named = read_letters(read.rows, object_id, self._source.scale, self._source.fonts, self._lost)
        self.targets |= {name: (object_id, row) for name, row in named.items()}
        return Table(id=object_id, name=self._title(element, "Table"), box=box, **(fields | read.fields), **common)

    def _drawn(
        self,
        element: Element,
        kind: str,
        object_id: str,
        look: StyleProperties,
        on_master: bool,
        common: dict[str, Any],
    ) -> Object | None:
        box = box_of(element, self._source.scale)
        fields: dict[str, Any] = {"form": "rectangle"}
        match kind:
            case "draw:rect":
                fields["corner_px"] = max(
                    (length_px(attribute_of(element, "draw:corner-radius")) or 0.0) * self._source.scale, 0.0
                )
            case "draw:ellipse" | "draw:circle":
                fields["form"] = "ellipse"
                if attribute_of(element, "draw:kind") not in ("", "full"):
                    self._lost.add("a piece of an ellipse, which becomes the whole")
            case "draw:custom-shape":
                fields, same = read_custom_shape(element)
                if "corner_px" in fields:
                    fields["corner_px"] *= self._source.scale if fields["form"] == "rectangle" else 1.0
                if not same:
                    self._lost.add("a form that becomes a rectangle")
            case _:
                try:
                    closes = kind == "draw:polygon"
                    outline = (
                        parse_outline(attribute_of(element, "svg:d"))
                        if kind == "draw:path"
                        else polygon(attribute_of(element, "draw:points"), closes)
                    )
                except BadMedia:
                    outline = []
                points = [point for _, given in outline for point in given]
                if not points:
                    self._lost.add("a drawing that cannot be read")
                    return None
                view = view_box(element) or _around(points)
                fields = {"form": "path", "path": shares(outline, view)}
        fill = fill_of(look.graphic, self._source.styles, self._lost, "none" if kind == "draw:polyline" else "solid")
        stroke = stroke_of(look.graphic, self._source.styles, self._source.scale, "solid")
        words = self._lettered(element, element, object_id, look, on_master)
        return Shape(
            id=object_id,
            name=self._title(element, "Shape"),
            box=box,
            fill=fill,
            stroke=stroke,
            **fields,
            **words,
            **common,
        )

    def _line(
        self, element: Element, kind: str, object_id: str, look: StyleProperties, common: dict[str, Any]
    ) -> Object | None:
        scale = self._source.scale
        x1, y1, x2, y2 = (
            (length_px(attribute_of(element, f"svg:{key}")) or 0.0) * scale for key in ("x1", "y1", "x2", "y2")
        )
        if kind == "draw:connector" and attribute_of(element, "draw:type") not in ("line", "lines"):
            self._lost.add("a connector, which becomes a straight line")
        length = math.hypot(x2 - x1, y2 - y1)
        stroke = stroke_of(look.graphic, self._source.styles, scale, "solid")
        high = max(24.0, (stroke.width_px if stroke else 0.0) * 4)
        turn = round(math.degrees(math.atan2(y2 - y1, x2 - x1)), 3)
        box = Box(
            round((x1 + x2 - length) / 2, 1), round((y1 + y2 - high) / 2, 1), round(max(length, 1.0), 1), high, turn
        )
        heads = _ENDS[(bool(look.graphic.get("draw:marker-start")), bool(look.graphic.get("draw:marker-end")))]
        return Shape(
            id=object_id, name=self._title(element, "Line"), box=box, form="line", stroke=stroke, heads=heads, **common
        )


def _opacity(look: Properties) -> float:
    return max(0.0, min(share(look.get("draw:image-opacity", look.get("draw:opacity", "100%"))) or 0.0, 1.0))


def _around(points: list[tuple[float, float]]) -> tuple[float, float, float, float]:
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(max(xs) - min(xs), 1.0), max(max(ys) - min(ys), 1.0)
