"""The shipped font faces: which exist, what they cover, and shaping with them."""

from functools import cache, lru_cache
from pathlib import Path
from types import MappingProxyType

import msgspec
import uharfbuzz as hb

from ritornel.core.errors import UnknownName

FONTS = Path(__file__).parent / "fonts"

FAMILIES = MappingProxyType(
    {
        "Spectral": "spectral",
        "Hanken Grotesk": "hanken-grotesk",
        "EB Garamond": "eb-garamond",
        "Alegreya": "alegreya",
        "Alegreya Sans": "alegreya-sans",
        "Literata": "literata",
        "IBM Plex Sans": "ibm-plex-sans",
        "IBM Plex Mono": "ibm-plex-mono",
        "Fira Sans": "fira-sans",
    }
)
"""Families for slides, by name, with their folder. All under the SIL Open Font License; the text lies in each
folder.
"""

SYMBOLS = "Noto Sans Symbols 2"
FALLBACK_FOLDERS = MappingProxyType(
    {SYMBOLS: "noto-sans-symbols-2", "Noto Sans Hebrew": "noto-hebrew", "Noto Naskh Arabic": "noto-arabic"}
)
FALLBACKS = ("IBM Plex Sans", "EB Garamond", "Noto Sans Hebrew", "Noto Naskh Arabic", SYMBOLS)
"""Where a character is looked for when its own family lacks it, in this order."""
MISSING = "\ufffd"


class Face(msgspec.Struct, frozen=True):
    """A family in one weight and slant."""

    family: str
    weight: int
    italic: bool

    @property
    def path(self) -> Path:
        """Its font file. A weight that does not ship is replaced by the nearest that does."""
        return _file_of(self.family, self.weight, self.italic)


class Glyphs(msgspec.Struct, frozen=True):
    """A shaped run, in px: glyph ids, where each stands from the run's left edge, and the cluster (index of its
    character).
    """

    ids: tuple[int, ...]
    xs: tuple[float, ...]
    ys: tuple[float, ...]
    clusters: tuple[int, ...]
    advances: tuple[float, ...]
    advance: float


class FaceHeights(msgspec.Struct, frozen=True):
    """The ascent and descent of a face, as shares of its size."""

    ascent: float
    descent: float


@cache
def _file_of(family: str, weight: int, italic: bool) -> Path:
    folder = FONTS / (FALLBACK_FOLDERS.get(family) or FAMILIES.get(family, ""))
    if family not in FALLBACK_FOLDERS and family not in FAMILIES:
        raise UnknownName(f"There is no font family “{family}”; there are {', '.join(FAMILIES)}.")
    suffix = "-italic" if italic else ""
    weights = sorted(
        int(path.stem.removesuffix("-italic"))
        for path in folder.glob("*.ttf")
        if path.stem.endswith("-italic") == italic
    )
    if not weights:
        return _file_of(family, weight, False)
    nearest = min(weights, key=lambda have: (abs(have - weight), -have))
    return folder / f"{nearest}{suffix}.ttf"


def check_family(family: str) -> None:
    """Raises UnknownName for a family that does not ship."""
    _file_of(family, 400, False)


@cache
def _font(path: Path) -> hb.Font:
    return hb.Font(hb.Face(hb.Blob.from_file_path(str(path))))


@cache
def _coverage(path: Path) -> frozenset[int]:
    return frozenset(_font(path).face.unicodes)


@cache
def rise_of(face: Face) -> FaceHeights:
    """The face's ascent and descent."""
    font = _font(face.path)
    extents = font.get_font_extents("ltr")
    return FaceHeights(extents.ascender / font.face.upem, -extents.descender / font.face.upem)


@lru_cache(maxsize=20_000)
def shape_text(text: str, face: Face, size_px: float, rtl: bool = False) -> Glyphs:
    """The run's glyphs from left to right, with the font's own kerning and ligatures."""
    font = _font(face.path)
    buffer = hb.Buffer()
    buffer.add_str(text)
    buffer.guess_segment_properties()
    buffer.direction = "rtl" if rtl else "ltr"
    hb.shape(font, buffer)
    unit = size_px / font.face.upem
    ids, xs, ys, clusters, advances = [], [], [], [], []
    x = 0.0
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        ids.append(info.codepoint)
        xs.append(x + position.x_offset * unit)
        ys.append(-position.y_offset * unit)
        clusters.append(info.cluster)
        advances.append(position.x_advance * unit)
        x += position.x_advance * unit
    return Glyphs(tuple(ids), tuple(xs), tuple(ys), tuple(clusters), tuple(advances), x)


def split_by_face(text: str, face: Face) -> list[tuple[str, Face]]:
    """The text in stretches, each with a face that has its characters. Joiners and marks stay with the character before
    them. A character that no shipped font has becomes U+FFFD, so that the gap is visible.
    """
    chain = [face] + [Face(name, face.weight, face.italic) for name in FALLBACKS if name != face.family]
    result: list[tuple[str, Face]] = []
    for character in text:
        code = ord(character)
        found = next((item for item in chain if code in _coverage(item.path)), None)
        invisible = character in "\u200b\u200c\u200d\ufe0e\ufe0f\u00ad"
        if invisible and result:
            found = result[-1][1]
        elif found is None:
            character = MISSING
            found = next(item for item in chain if ord(MISSING) in _coverage(item.path))
        if result and result[-1][1] == found:
            result[-1] = (result[-1][0] + character, found)
        else:
            result.append((character, found))
    return result


def find_missing(text: str, face: Face) -> set[str]:
    """The characters of the text that no shipped font has."""
    chain = [face.path] + [Face(name, face.weight, face.italic).path for name in FALLBACKS]
    return {c for c in text if c.isprintable() and not any(ord(c) in _coverage(path) for path in chain)}
