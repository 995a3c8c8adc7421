"""Text of a presentation as text of a show: paragraphs, lists with their levels, spans with their looks, links."""

from collections import Counter
from collections.abc import Callable, Iterator
from types import MappingProxyType
from typing import Any
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.document.objects import Paragraph, Stroke, TextRun
from ritornel.core.formats.opendocument.names import attribute_of, children_of, colour, full, length_px, share, short
from ritornel.core.formats.opendocument.styles import Properties, StyleProperties, Styles, over
from ritornel.core.layout.faces import FAMILIES

BOLD, HALF_BOLD = 700, 600
NATURAL_LINE = 1.2
"""How high a line of 100 % is, in sizes of its letters: what families have by themselves differs little from it."""
USUAL_PX = 24.0
MOST_CHARACTERS = 100_000
_SERIFS = ("serif", "times", "roman", "georgia", "garamond", "book", "palatino", "cambria", "baskerville", "century")
_WEIGHTS = {"bold": 700, "normal": 400}
_FIELDS = MappingProxyType({"text:s": " ", "text:tab": "\u2003"})

BaseLook = Callable[[int], StyleProperties]
"""The look that words have before they say anything themselves, by the level of their list (0: the outermost, or
none).
"""


class StyledText(msgspec.Struct, frozen=True):
    """A stretch with all its properties."""

    text: str
    look: Properties
    link: str = ""


class ReadParagraph(msgspec.Struct, frozen=True):
    """A paragraph that was read: its stretches, its list, its properties, and its ids in the timing."""

    pieces: tuple[StyledText, ...]
    kind: str
    level: int
    paragraph: Properties
    ids: tuple[str, ...]

    @property
    def characters(self) -> int:
        return sum(len(piece.text) for piece in self.pieces)


class Words:
    """Reads the text of a box, a shape or a page of notes."""

    def __init__(self, styles: Styles, on_master: bool, base: BaseLook, lost: set[str]) -> None:
        self._styles, self._on_master, self._base, self._lost = styles, on_master, base, lost

    def lines(self, element: Element) -> list[ReadParagraph]:
        """The paragraphs under an element, in order. A line break becomes a new paragraph."""
        return list(self._blocks(element, "none", 0, ""))

    def _blocks(self, element: Element, kind: str, level: int, list_style: str) -> Iterator[ReadParagraph]:
        for child in element:
            match short(child.tag):
                case "text:p" | "text:h":
                    yield from self._paragraph(child, kind, level)
                case "text:list":
                    name = attribute_of(child, "text:style-name") or list_style
                    depth = level + (kind != "none" or bool(list_style))
                    yield from self._list(child, name, depth)
                case "text:section" | "text:numbered-paragraph":
                    yield from self._blocks(child, kind, level, list_style)

    def _list(self, element: Element, name: str, level: int) -> Iterator[ReadParagraph]:
        kind = self._kind(name, level)
        for entry in children_of(element, "text:list-item", "text:list-header"):
            own = "none" if entry.tag == full("text:list-header") else kind
            for child in entry:
                if child.tag == full("text:list"):
                    yield from self._list(child, attribute_of(child, "text:style-name") or name, level + 1)
                elif child.tag in (full("text:p"), full("text:h")):
                    yield from self._paragraph(child, own, level)
                    # What follows in the same item goes on under its sign.
                    own = "none"

    def _kind(self, name: str, level: int) -> str:
        style = self._styles.list_style(name)
        if style is None:
            return "bullets"
        for entry in style:
            if attribute_of(entry, "text:level") == str(level + 1):
                if entry.tag == full("text:list-level-style-number"):
                    return "numbers" if attribute_of(entry, "style:num-format") else "none"
                signed = entry.tag == full("text:list-level-style-image") or bool(
                    attribute_of(entry, "text:bullet-char").strip()
                )
                return "bullets" if signed else "none"
        return "none"

    def _paragraph(self, element: Element, kind: str, level: int) -> Iterator[ReadParagraph]:
        base = self._base(level)
        style = (
            self._styles.look("paragraph", attribute_of(element, "text:style-name"), self._on_master)
            if attribute_of(element, "text:style-name")
            else StyleProperties()
        )
        upper = over(base.text, style.text)
        properties = over(base.paragraph, style.paragraph)
        ids = tuple(value for key in ("xml:id", "text:id") if (value := attribute_of(element, key)))
        pieces: list[StyledText] = []
        for piece in self._spans(element, upper, ""):
            if piece is None:
                yield ReadParagraph(tuple(pieces), kind, level, properties, ids)
                pieces, ids = [], ()
                kind = "none"
            else:
                pieces.append(piece)
        yield ReadParagraph(tuple(pieces), kind, level, properties, ids)

    def _spans(self, element: Element, look: Properties, link: str) -> Iterator[StyledText | None]:
        """Stretches, with None for a line break.

        White space between words counts once (OpenDocument 1.3, part 3, 6.1.2).
        """
        if element.text:
            yield StyledText(_collapse(element.text), look, link)
        for child in element:
            match short(child.tag):
                case "text:span":
                    name = attribute_of(child, "text:style-name")
                    yield from self._spans(
                        child, over(look, self._styles.look("text", name, self._on_master).text) if name else look, link
                    )
                case "text:a":
                    address = attribute_of(child, "xlink:href")
                    leads = address.startswith(("http://", "https://", "mailto:")) and not any(
                        sign.isspace() for sign in address
                    )
                    if not leads:
                        self._lost.add("a link that leads into a file")
                    yield from self._spans(child, look, address if leads else "")
                case "text:s":
                    yield StyledText(" " * min(int(attribute_of(child, "text:c") or 1), 200), look, link)
                case "text:tab":
                    yield StyledText(_FIELDS["text:tab"], look, link)
                case "text:line-break":
                    yield None
                case "office:annotation":
                    self._lost.add("remarks")
                case "text:note" | "text:ruby":
                    self._lost.add("footnotes")
                case _:
                    # A field, such as a date: it is worth what it last said.
                    yield from self._spans(child, look, link)
            if child.tail:
                yield StyledText(_collapse(child.tail), look, link)


def _collapse(text: str) -> str:
    words = " ".join(text.split())
    return f"{' ' if text[:1].isspace() else ''}{words}{' ' if words and text[-1:].isspace() else ''}"


def family_of(look: Properties, fonts: dict[str, str]) -> tuple[str, str]:
    """The shipped family nearest to the named one, and the named one."""
    asked = (
        (look.get("fo:font-family") or fonts.get(look.get("style:font-name", ""), ""))
        .split(",")[0]
        .strip()
        .strip("'\"")
    )
    if asked in FAMILIES:
        return asked, asked
    low = asked.lower()
    if "mono" in low or "courier" in low or "console" in low or "consol" in low:
        return "IBM Plex Mono", asked
    return ("IBM Plex Sans" if "sans" in low or not any(sign in low for sign in _SERIFS) else "Spectral"), asked


def _weight(look: Properties) -> int:
    given = look.get("fo:font-weight", "normal")
    number = _WEIGHTS.get(given) or (int(given) if given.isascii() and given.isdigit() and len(given) < 5 else 400)
    return BOLD if number >= BOLD else HALF_BOLD if number >= HALF_BOLD else 400


def _underlined(look: Properties) -> bool:
    return look.get("style:text-underline-style", "none") != "none"


def _italic(look: Properties) -> bool:
    return look.get("fo:font-style", "normal") in ("italic", "oblique")


def _letters_colour(look: Properties) -> str:
    return (
        "#000000"
        if look.get("style:use-window-font-color") == "true"
        else colour(look.get("fo:color", "")) or "#000000"
    )


def _commonest(values: list[tuple[Any, int]]) -> Any:
    """The value that most characters have; among equals the first."""
    counted: Counter[Any] = Counter()
    for value, characters in values:
        counted[value] += characters
    return counted.most_common(1)[0][0]


ALIGN = MappingProxyType({"center": "centre", "end": "right", "right": "right"})


def read_letters(
    lines: list[ReadParagraph], stem: str, scale: float, fonts: dict[str, str], lost: set[str]
) -> tuple[dict[str, Any], dict[str, str]]:
    """The fields of a text with these lines, and the ids of its paragraphs in the presentation.

    The look of most characters becomes the text's; stretches have the rest. `scale` is px of the show's frame for one
    of the presentation's.
    """
    pieces = [(piece, len(piece.text)) for line in lines for piece in line.pieces if piece.text] or [
        (StyledText("", {}), 1)
    ]
    sizes = [
        (round((length_px(piece.look.get("fo:font-size", "")) or USUAL_PX) * scale * 2) / 2, count)
        for piece, count in pieces
    ]
    size = _commonest(sizes)
    if any(abs(entry - size) > max(1.0, size * 0.06) for entry, _ in sizes):
        lost.add("letters of several sizes in one text")
    families = {family_of(piece.look, fonts) for piece, _ in pieces}
    lost.update(f"the font “{asked}”" for family, asked in families if asked and asked != family)
    if any(piece.look.get("style:text-line-through-style", "none") != "none" for piece, _ in pieces):
        lost.add("lines through words")
    if any(not piece.look.get("style:text-position", "0%").startswith("0%") for piece, _ in pieces):
        lost.add("raised and lowered letters")
    base = {
        "weight": _commonest([(_weight(piece.look), count) for piece, count in pieces]),
        "italic": _commonest([(_italic(piece.look), count) for piece, count in pieces]),
        "underline": _commonest([(_underlined(piece.look) and not piece.link, count) for piece, count in pieces]),
        "colour": _commonest([(_letters_colour(piece.look), count) for piece, count in pieces]),
    }
    paragraphs: list[Paragraph] = []
    named: dict[str, str] = {}
    left = MOST_CHARACTERS
    for number, line in enumerate(lines, 1):
        paragraph_id = f"{stem}-{number}"
        runs = tuple(_run(piece, base) for piece in line.pieces if piece.text)
        left -= line.characters
        if left < 0:
            lost.add("words after the first 100 000 letters of one text")
            break
        paragraphs.append(Paragraph(paragraph_id, runs or (TextRun(""),), line.kind, min(line.level, 5)))  # type: ignore[arg-type]
        named |= dict.fromkeys(line.ids, paragraph_id)
    hollow = _commonest([(piece.look.get("style:text-outline") == "true", count) for piece, count in pieces])
    first = next((line.paragraph for line in lines if line.characters), lines[0].paragraph if lines else {})
    height = share(first.get("fo:line-height", "100%"))
    gaps = [length_px(line.paragraph.get("fo:margin-bottom", "")) or 0.0 for line in lines] or [0.0]
    above = [length_px(line.paragraph.get("fo:margin-top", "")) or 0.0 for line in lines] or [0.0]
    fields = {
        "paragraphs": tuple(paragraphs),
        "size_px": min(max(size, 4.0), 1000.0),
        "family": _commonest([(family_of(piece.look, fonts)[0], count) for piece, count in pieces]),
        "align": ALIGN.get(first.get("fo:text-align", ""), "left"),
        "line_spacing": min(max(round((height or 1.0) * NATURAL_LINE, 3), 0.5), 4.0),
        "paragraph_gap": min(max(round((max(gaps) + max(above)) * scale / max(size, 1.0), 3), 0.0), 4.0),
        **base,
    }
    if hollow:
        fields |= {"colour": None, "outline": Stroke(base["colour"], max(size / 24, 1.0))}
    return fields, named


def _run(piece: StyledText, base: dict[str, Any]) -> TextRun:
    look = piece.look
    weight, italic, under, ink = _weight(look), _italic(look), _underlined(look), _letters_colour(look)
    return TextRun(
        piece.text,
        weight if weight != base["weight"] else None,
        italic if italic != base["italic"] else None,
        ink if ink != base["colour"] and not piece.link else None,
        under if under != base["underline"] and not piece.link else None,
        colour(look.get("fo:background-color", "")),
        piece.link or None,
    )
