"""Fills, borders and shadows of a style as those of an object."""

import re
from xml.etree.ElementTree import Element

from ritornel.core.document.objects import Fill, Gradient, Plain, Shadow, Stroke
from ritornel.core.formats.opendocument.names import attribute_of, colour, length_px, share, with_alpha
from ritornel.core.formats.opendocument.styles import Properties, Styles

_ANGLE = re.compile(r"(-?[0-9]{1,6}(?:\.[0-9]{1,6})?)(deg)?")


def _alpha(look: Properties, name: str) -> float:
    return max(0.0, min(share(look.get(name, "100%")) or 0.0, 1.0))


def _degrees(words: str) -> float:
    """An angle in degrees; 0 for a value that is no angle."""
    said_so = _ANGLE.fullmatch(words)
    return float(said_so[1]) / (1 if said_so[2] else 10) if said_so else 0.0


def gradient_of(entry: Element) -> Gradient:
    """A gradient's two colours and its angle.

    OpenDocument turns anticlockwise from top to bottom, in tenths of a degree where there is no unit. Other gradients
    become linear.
    """
    first, second = (colour(attribute_of(entry, f"draw:{key}-color")) or "#ffffff" for key in ("start", "end"))
    words = attribute_of(entry, "draw:angle") or "0"
    angle = (90.0 - _degrees(words)) % 360
    if attribute_of(entry, "draw:style") == "axial":
        return Gradient(second, first, angle)
    return Gradient(first, second, angle)


def fill_of(look: Properties, styles: Styles, lost: set[str], usual: str = "none") -> Fill | None:
    """The fill of a shape. A hatch becomes its colour; a picture is lost."""
    kind = look.get("draw:fill", usual)
    alpha = _alpha(look, "draw:opacity")
    match kind:
        case "solid":
            return Plain(with_alpha(colour(look.get("draw:fill-color", "")) or "#ffffff", alpha))
        case "gradient":
            entry = styles.named("draw:gradient", look.get("draw:fill-gradient-name", ""))
            if entry is None:
                return None
            if attribute_of(entry, "draw:style") not in ("linear", "axial"):
                lost.add("gradients that are not straight")
            gradient = gradient_of(entry)
            along = styles.named("draw:opacity", look.get("draw:opacity-name", ""))
            first, second = (
                (share(attribute_of(along, f"draw:{end}")) if along is not None else alpha) for end in ("start", "end")
            )
            return Gradient(
                with_alpha(gradient.first, 1.0 if first is None else first),
                with_alpha(gradient.second, 1.0 if second is None else second),
                gradient.angle_deg,
            )
        case "hatch":
            lost.add("hatching")
            entry = styles.named("draw:hatch", look.get("draw:fill-hatch-name", ""))
            return Plain(colour(attribute_of(entry, "draw:color")) or "#cccccc") if entry is not None else None
        case "bitmap":
            lost.add("pictures that fill shapes")
    return None


def stroke_of(look: Properties, styles: Styles, scale: float, usual: str = "none") -> Stroke | None:
    """The border. A line of no width becomes 1 px, the thinnest there is."""
    kind = look.get("draw:stroke", usual)
    if kind == "none":
        return None
    width = max((length_px(look.get("svg:stroke-width", "")) or 0.0) * scale, 1.0)
    ink = with_alpha(colour(look.get("svg:stroke-color", "")) or "#000000", _alpha(look, "svg:stroke-opacity"))
    if kind != "dash":
        return Stroke(ink, round(width, 1))
    entry = styles.named("draw:stroke-dash", look.get("draw:stroke-dash", ""))
    long = length_px(attribute_of(entry, "draw:dots1-length")) if entry is not None else None
    return Stroke(ink, round(width, 1), "dashed" if long is None or long * scale > width * 2 else "dotted")


def shadow_of(look: Properties, scale: float) -> Shadow | None:
    """The shadow, where it is visible."""
    if look.get("draw:shadow") != "visible":
        return None

    def px(name: str) -> float:
        return round((length_px(look.get(name, "")) or 0.0) * scale, 1)

    ink = with_alpha(colour(look.get("draw:shadow-color", "")) or "#808080", _alpha(look, "draw:shadow-opacity"))
    return Shadow(px("draw:shadow-offset-x"), px("draw:shadow-offset-y"), 0.0, ink)


Insets = tuple[float, float, float, float]


def insets_of(look: Properties, scale: float) -> Insets:
    """The distance of text from the left, top, right and bottom edge."""
    every = look.get("fo:padding", "")

    def px(side: str) -> float:
        return max((length_px(look.get(f"fo:padding-{side}", every) or "") or 0.0) * scale, 0.0)

    return px("left"), px("top"), px("right"), px("bottom")
