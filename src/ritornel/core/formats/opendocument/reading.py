"""A show from an OpenDocument presentation."""

import re
from collections import Counter
from pathlib import Path
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.document.integrity import check_integrity
from ritornel.core.document.layouts import layout_named
from ritornel.core.document.objects import Background, Plain, Text
from ritornel.core.document.show import AdvanceOnCue, Frame, OnCue, Show, Slide
from ritornel.core.document.theme import Furniture, Palette, Theme
from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import Limits
from ritornel.core.formats.opendocument.names import Loss, attribute_of, children_of, full, length_px, short
from ritornel.core.formats.opendocument.package import Package
from ritornel.core.formats.opendocument.pages import PageReader
from ritornel.core.formats.opendocument.read_objects import Source
from ritornel.core.formats.opendocument.shelf import Shelf
from ritornel.core.formats.opendocument.styles import Styles
from ritornel.core.formats.progress import tell_progress

MOST_SLIDES = 1000
LONG_SIDE_PX = 1280
USUAL_PAGE_PX = (28 * 96 / 2.54, 15.75 * 96 / 2.54)


def read_opendocument(
    path: Path, name: str, folder: Path, show_id: str, limits: Limits, told: Path | None = None
) -> tuple[Show, tuple[Loss, ...]]:
    """The show of the presentation at `path`, uploaded as `name`, and its losses.

    Its media then lie in `folder`, each under its hash. A file says meanwhile how many pages are done (progress.py).
    Raises BadMedia for a file that is no presentation, is damaged, encrypted, hostile, without a page or of another
    generation of the format.
    """
    with Package(path, name) as package:
        return _read(package, name, folder, show_id, limits, told)


def _read(
    package: Package, name: str, folder: Path, show_id: str, limits: Limits, told: Path | None
) -> tuple[Show, tuple[Loss, ...]]:
    body = package.content.find(f"{full('office:body')}/{full('office:presentation')}")
    pages = list(children_of(body, "draw:page")) if body is not None else []
    if not pages:
        raise BadMedia(f"“{name}” has no pages. Nothing was made.")
    if len(pages) > MOST_SLIDES:
        raise BadMedia(f"“{name}” has {len(pages)} pages; at most {MOST_SLIDES} can become slides. Nothing was made.")
    styles = Styles(package.content, package.styles)
    frame, scale = _frame(styles, pages[0])
    ids = {attribute_of(page, "draw:name"): f"s{number}" for number, page in reversed(list(enumerate(pages, 1)))}
    source = Source(styles, Shelf(package, folder, limits), frame, scale, _fonts(package), ids)
    losses = (
        [Loss(0, f"what is new in OpenDocument {package.newer}: versions up to 1.4 are known here")]
        if package.newer
        else []
    )
    slides: list[Slide] = []
    furniture: Counter[Furniture] = Counter()
    for number, page in enumerate(pages, 1):
        tell_progress(told, number - 1, len(pages))
        lost: set[str] = set()
        slide, found = PageReader(source, page, f"s{number}", lost).slide()
        slides.append(slide)
        furniture.update([found] if found != Furniture() else [])
        losses += [Loss(number, words) for words in sorted(lost)]
    assert body is not None
    losses += _whole(body)
    theme, kept = _find_theme(slides)
    settings = next(children_of(body, "presentation:settings"), None)
    by_hand = any(isinstance(slide.advance, AdvanceOnCue) for slide in kept) or _waits(kept)
    show = Show(
        show_id,
        _title(package, name),
        frame,
        end="loop" if settings is not None and attribute_of(settings, "presentation:endless") == "true" else "hold",
        runs="on cue" if by_hand else "self-running",
        slides=_name_slides(kept),
        assets=source.shelf.assets,
        theme=theme,
        furniture=furniture.most_common(1)[0][0] if furniture else Furniture(),
    )
    check_integrity(show)
    return show, tuple(losses)


def _waits(slides: list[Slide]) -> bool:
    return any(
        isinstance(build.starts, OnCue) and build.starts.hold_ms is None for slide in slides for build in slide.order
    )


def _frame(styles: Styles, page: Element) -> tuple[Frame, float]:
    """The frame for the page's size, its longer side 1280 px and the other even, and how many of its px are one of the
    page's.
    """
    master = styles.masters.get(attribute_of(page, "draw:master-page-name"), next(iter(styles.masters.values()), None))
    layout = styles.page_layout(master) if master is not None else {}
    width, height = (
        length_px(layout.get(f"fo:page-{side}", "")) or usual
        for side, usual in zip(("width", "height"), USUAL_PAGE_PX, strict=True)
    )
    width, height = max(width, 1.0), max(height, 1.0)
    scale = LONG_SIDE_PX / max(width, height)
    sides = (max(16, min(int(side * scale / 2 + 0.5) * 2, 8192)) for side in (width, height))
    return Frame(*sides), scale


def _fonts(package: Package) -> dict[str, str]:
    """Families by the names that styles use for them."""
    return {
        attribute_of(face, "style:name"): attribute_of(face, "svg:font-family")
        for root in (package.styles, package.content)
        for declared in children_of(root, "office:font-face-decls")
        for face in children_of(declared, "style:font-face")
    }


_DATED = re.compile(r"\.(odp|otp|fodp)$", re.IGNORECASE)


def _title(package: Package, name: str) -> str:
    meta = package.bytes_of("meta.xml")
    found = re.search(rb"<dc:title>([^<]{1,400})</dc:title>", meta or b"")
    words = found[1].decode("utf-8", "replace") if found else ""
    for sign, meant in (("&lt;", "<"), ("&gt;", ">"), ("&quot;", '"'), ("&apos;", "'"), ("&amp;", "&")):
        words = words.replace(sign, meant)
    return (" ".join(words.split()) or _DATED.sub("", name).strip() or "Presentation")[:200]


def _whole(body: Element) -> list[Loss]:
    """The losses of the presentation as a whole."""
    kinds = {short(entry.tag) for entry in body}
    losses = []
    if "presentation:settings" in kinds and any(
        True
        for settings in children_of(body, "presentation:settings")
        for _ in children_of(settings, "presentation:show")
    ):
        losses.append(Loss(0, "selections of pages kept as shows of their own"))
    if kinds & {"presentation:header-decl", "presentation:footer-decl", "presentation:date-time-decl"}:
        losses.append(Loss(0, "header, footer, date and page number: the show's own furniture takes their place"))
    return losses


def _find_theme(slides: list[Slide]) -> tuple[Theme, list[Slide]]:
    """A theme from what most pages have: its background, and the colour and family of most text.

    Slides with that background follow it.
    """
    grounds: Counter[Background] = Counter(
        slide.background for slide in slides if slide.background is not None and not layout_named(slide.layout).opens
    )
    grounds = grounds or Counter(slide.background for slide in slides if slide.background is not None)
    ground: Background = grounds.most_common(1)[0][0] if grounds else Plain("#ffffff")
    words: Counter[tuple[str, str]] = Counter()
    heads: Counter[str] = Counter()
    for slide in slides:
        for item in slide.objects:
            if isinstance(item, Text):
                count = sum(len(paragraph.text) for paragraph in item.paragraphs)
                words[(item.colour or "#000000", item.family)] += count
                if item.place in ("heading", "title"):
                    heads[item.family] += count
    ink, family = words.most_common(1)[0][0] if words else ("#16262e", "IBM Plex Sans")
    head = heads.most_common(1)[0][0] if heads else family
    palette = Palette(
        words=ink[:7], soft=ink[:7], ground=ground.colour[:7] if isinstance(ground, Plain) else Palette().ground
    )
    behind = Plain("@ground") if isinstance(ground, Plain) else ground
    theme = Theme("As it came", palette, head, family, ground=behind, opening=behind)
    return theme, [
        msgspec.structs.replace(slide, background=None) if slide.background == ground else slide for slide in slides
    ]


_USUAL_NAME = re.compile(r"^(page|slide|seite|folie|diapo\w*)\s*\d+$|^p\d+$", re.IGNORECASE)


def _name_slides(slides: list[Slide]) -> tuple[Slide, ...]:
    """Slides with the names of their pages; a slide with only a number is named by its heading."""
    result = []
    for slide in slides:
        heading = next(
            (item for item in slide.objects if item.place in ("heading", "title") and isinstance(item, Text)), None
        )
        words = (
            " ".join(" ".join(paragraph.text for paragraph in heading.paragraphs).split())[:200]
            if heading is not None
            else ""
        )
        plain = not slide.name or _USUAL_NAME.match(slide.name)
        result.append(msgspec.structs.replace(slide, name=words or slide.name) if plain else slide)
    return tuple(result)
