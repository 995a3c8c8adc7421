"""Markup, and the automatic styles it needs: equal styles are written once."""

from collections.abc import Mapping
from types import MappingProxyType
from xml.etree.ElementTree import Element, tostring

from ritornel.core.document.objects import Gradient, Plain, Shadow, Stroke, TextHolder, TextRun
from ritornel.core.formats.opendocument.names import SPACES, VERSION, points, with_alpha
from ritornel.core.formats.opendocument.read_text import NATURAL_LINE

Attributes = Mapping[str, str]


def el(name: str, attributes: Attributes | None = None, *children: Element, text: str = "") -> Element:
    """An element by its short name. Namespaces are declared once, at the root."""
    made = Element(name, {key: value for key, value in (attributes or {}).items() if value != ""})
    made.text = text or None
    made.extend(children)
    return made


def document(name: str, *children: Element) -> bytes:
    """A whole document with its namespace declarations."""
    root = el(
        name,
        {
            **{f"xmlns:{prefix}": uri for prefix, uri in SPACES.items() if prefix not in ("xml", "manifest")},
            "office:version": VERSION,
        },
        *children,
    )
    return b'<?xml version="1.0" encoding="UTF-8"?>\n' + bytes(tostring(root, encoding="utf-8"))


def fade_fill(fill: Plain | Gradient | None, opacity: float) -> Plain | Gradient | None:
    """The fill of a transparent object as a transparent fill."""
    match fill:
        case Plain(colour):
            return Plain(_thin(colour, opacity))
        case Gradient(first, second, angle):
            return Gradient(_thin(first, opacity), _thin(second, opacity), angle)
    return None


def _thin(literal: str, opacity: float) -> str:
    alpha = int(literal[7:9], 16) / 255 if len(literal) == 9 else 1.0
    return with_alpha(literal[:7], alpha * opacity)


def fade_border(stroke: Stroke | None, opacity: float) -> Stroke | None:
    """The border of a transparent object as a transparent border."""
    return None if stroke is None else Stroke(_thin(stroke.colour, opacity), stroke.width_px, stroke.dash)


def ink(literal: str) -> tuple[str, str]:
    """A colour and its opacity as OpenDocument writes them.

    >>> ink("#8a245680")
    ('#8a2456', '50%')
    """
    return literal[:7], f"{round(int(literal[7:9], 16) / 2.55) if len(literal) == 9 else 100}%"


_STEMS = MappingProxyType(
    {
        "graphic": "gr",
        "presentation": "pr",
        "paragraph": "P",
        "text": "T",
        "drawing-page": "dp",
        "table-column": "co",
        "table-cell": "ce",
    }
)
"""What names of automatic styles begin with."""


class Dress:
    """Collects automatic styles, gradients, fill pictures, and markers."""

    def __init__(self, common: dict[bytes, Element] | None = None) -> None:
        self._automatic: dict[bytes, Element] = {}
        self._common: dict[bytes, Element] = {} if common is None else common

    def beside(self) -> "Dress":
        """A second collection with automatic styles of its own; all else is shared."""
        return Dress(self._common)

    def automatic(self) -> list[Element]:
        return list(self._automatic.values())

    def common(self) -> list[Element]:
        return list(self._common.values())

    def style(
        self, family: str, groups: Mapping[str, Attributes], parent: str = "", sound: Element | None = None
    ) -> str:
        """The name of the automatic style with these properties."""
        parts = [el(f"style:{group}-properties", properties) for group, properties in groups.items() if properties]
        if sound is not None:
            parts[0].append(sound)
        key = tostring(el(family, {"p": parent}, *parts))
        if key not in self._automatic:
            stem = _STEMS[family]
            name = f"{stem}{len(self._automatic) + 1}"
            self._automatic[key] = el(
                "style:style", {"style:name": name, "style:family": family, "style:parent-style-name": parent}, *parts
            )
        return self._automatic[key].attrib["style:name"]

    def list_style(self, kind: str) -> str:
        """The style of lists with signs or with numbers, on six levels."""
        key = f"list {kind}".encode()
        if key not in self._automatic:
            levels = []
            for level in range(1, 7):
                place = el(
                    "style:list-level-properties",
                    {"text:space-before": f"{(level - 1) * 0.8:.1f}cm", "text:min-label-width": "0.8cm"},
                )
                if kind == "numbers":
                    levels.append(
                        el(
                            "text:list-level-style-number",
                            {"text:level": str(level), "style:num-format": "1", "style:num-suffix": "."},
                            place,
                        )
                    )
                else:
                    levels.append(
                        el(
                            "text:list-level-style-bullet",
                            {"text:level": str(level), "text:bullet-char": "•" if level % 2 else "–"},
                            place,
                        )
                    )
            self._automatic[key] = el("text:list-style", {"style:name": f"L-{kind}"}, *levels)
        return self._automatic[key].attrib["style:name"]

    def _shared(self, key: bytes, made: Element) -> str:
        return self._common.setdefault(key, made).attrib["draw:name"]

    def gradient(self, fill: Gradient) -> str:
        """The name of a gradient. OpenDocument's angle is anticlockwise from top to bottom."""
        angle = round((90 - fill.angle_deg) % 360 * 10) % 3600
        key = f"gradient {fill}".encode()
        return self._shared(
            key,
            el(
                "draw:gradient",
                {
                    "draw:name": f"Gradient_{len(self._common) + 1}",
                    "draw:style": "linear",
                    "draw:start-color": ink(fill.first)[0],
                    "draw:end-color": ink(fill.second)[0],
                    "draw:start-intensity": "100%",
                    "draw:end-intensity": "100%",
                    "draw:angle": str(angle),
                    "draw:border": "0%",
                },
            ),
        )

    def opacity(self, fill: Gradient) -> str:
        """The name of the opacity that runs along a gradient."""
        key = f"opacity {fill}".encode()
        sides = {
            "draw:start": ink(fill.first)[1],
            "draw:end": ink(fill.second)[1],
            "draw:angle": str(round((90 - fill.angle_deg) % 360 * 10) % 3600),
        }
        return self._shared(
            key,
            el(
                "draw:opacity",
                {"draw:name": f"Opacity_{len(self._common) + 1}", "draw:style": "linear", "draw:border": "0%", **sides},
            ),
        )

    def picture(self, address: str) -> str:
        """The name of a fill picture."""
        return self._shared(
            f"picture {address}".encode(),
            el("draw:fill-image", {"draw:name": f"Picture_{len(self._common) + 1}", "xlink:href": address, **EMBEDDED}),
        )

    def dash(self, stroke: Stroke) -> str:
        """The name of a dash, its lengths in those of its line."""
        width = stroke.width_px
        lengths = (width * 3, width * 2) if stroke.dash == "dashed" else (width, width)
        return self._shared(
            f"dash {stroke.dash} {width}".encode(),
            el(
                "draw:stroke-dash",
                {
                    "draw:name": f"Dash_{len(self._common) + 1}",
                    "draw:style": "rect" if stroke.dash == "dashed" else "round",
                    "draw:dots1": "1",
                    "draw:dots1-length": points(lengths[0]),
                    "draw:distance": points(lengths[1]),
                },
            ),
        )

    def marker(self) -> str:
        """The name of a line's head."""
        made = el("draw:marker", {"draw:name": "Head", "svg:viewBox": "0 0 20 30", "svg:d": "M10 0 L0 30 L20 30 Z"})
        return self._shared(b"marker", made)

    def fill(self, fill: Plain | Gradient | None) -> dict[str, str]:
        """The properties of a fill."""
        match fill:
            case Plain(colour):
                literal, opaque = ink(colour)
                return {"draw:fill": "solid", "draw:fill-color": literal, "draw:opacity": opaque}
            case Gradient():
                named = {"draw:fill": "gradient", "draw:fill-gradient-name": self.gradient(fill)}
                return (
                    named
                    if len(fill.first) == len(fill.second) == 7
                    else {**named, "draw:opacity-name": self.opacity(fill)}
                )
        return {"draw:fill": "none"}

    def stroke(self, stroke: Stroke | None) -> dict[str, str]:
        """The properties of a border."""
        if stroke is None or not stroke.width_px:
            return {"draw:stroke": "none"}
        literal, opaque = ink(stroke.colour)
        base = {"svg:stroke-width": points(stroke.width_px), "svg:stroke-color": literal, "svg:stroke-opacity": opaque}
        return (
            {"draw:stroke": "solid", **base}
            if stroke.dash == "solid"
            else {"draw:stroke": "dash", "draw:stroke-dash": self.dash(stroke), **base}
        )


EMBEDDED = {"xlink:type": "simple", "xlink:show": "embed", "xlink:actuate": "onLoad"}


def shadow(cast: Shadow | None) -> dict[str, str]:
    """The properties of a shadow. Its softness cannot be written."""
    if cast is None:
        return {}
    literal, opaque = ink(cast.colour)
    return {
        "draw:shadow": "visible",
        "draw:shadow-offset-x": points(cast.dx),
        "draw:shadow-offset-y": points(cast.dy),
        "draw:shadow-color": literal,
        "draw:shadow-opacity": opaque,
    }


_ALIGN = {"left": "start", "centre": "center", "right": "end"}


def letters(item: TextHolder) -> dict[str, str]:
    """The properties of an object's letters, with literal colours."""
    return {
        "style:font-name": item.family,
        "fo:font-size": points(item.size_px),
        "fo:font-weight": str(item.weight) if item.weight != 400 else "normal",
        "fo:font-style": "italic" if item.italic else "normal",
        "fo:color": ink(item.colour or (item.outline.colour if item.outline else "#000000"))[0],
        "fo:background-color": ink(item.highlight)[0] if item.highlight else "",
        "style:text-outline": "true" if item.colour is None else "",
        **_underline(item.underline),
    }


def _underline(under: bool) -> dict[str, str]:
    if not under:
        return {"style:text-underline-style": "none"}
    return {
        "style:text-underline-style": "solid",
        "style:text-underline-width": "auto",
        "style:text-underline-color": "font-color",
    }


def paragraphs(item: TextHolder) -> dict[str, str]:
    """The properties of an object's paragraphs."""
    return {
        "fo:text-align": _ALIGN[item.align],
        "fo:line-height": f"{round(item.line_spacing / NATURAL_LINE * 100)}%",
        "fo:margin-bottom": points(item.paragraph_gap * item.size_px),
        "fo:margin-top": "0pt",
    }


def run(stretch: TextRun) -> dict[str, str]:
    """The properties in which a run differs."""
    found: dict[str, str] = {}
    if stretch.weight is not None:
        found["fo:font-weight"] = str(stretch.weight) if stretch.weight != 400 else "normal"
    if stretch.italic is not None:
        found["fo:font-style"] = "italic" if stretch.italic else "normal"
    if stretch.colour is not None:
        found["fo:color"] = ink(stretch.colour)[0]
    if stretch.highlight is not None:
        found["fo:background-color"] = ink(stretch.highlight)[0]
    if stretch.underline is not None:
        found |= _underline(stretch.underline)
    return found
