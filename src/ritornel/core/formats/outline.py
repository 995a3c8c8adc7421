"""Outlines in Markdown (CommonMark): headings become slides, what stands under them their words, quotations the notes;
and the same back.

    # The Orlmere clock            the show's title; every further one names a section
    ## The escapement              a slide with this heading
    Lets one tooth pass.           its words: paragraphs, lists with their levels, bold, italic and links
    > Left alone it would spin.    what is said of it
"""

import re
from collections.abc import Iterable

from markdown_it import MarkdownIt
from markdown_it.token import Token

from ritornel.core.document.layouts import box_of, layout_named, look_of, place_of
from ritornel.core.document.objects import Paragraph, Text, TextHolder, TextRun
from ritornel.core.document.show import AdvanceAfter, Frame, Show, Slide
from ritornel.core.document.theme import Theme
from ritornel.core.errors import BadMedia
from ritornel.core.formats.export import Export

MOST_SLIDES = 1000
MOST_BYTES = 2_000_000
BOLD = 700
_SIGNS = re.compile(r"([\\`*_\[\]<>#&~])")
_LOST = {
    "fence": "code",
    "code_block": "code",
    "html_block": "HTML",
    "html_inline": "HTML",
    "hr": "rules",
    "image": "pictures",
}


def _runs(children: Iterable[Token], lost: set[str]) -> tuple[TextRun, ...]:
    """The runs of a line; a break becomes a space."""
    runs: list[TextRun] = []
    weight, italic, link = None, None, None
    for token in children:
        match token.type:
            case "strong_open":
                weight = BOLD
            case "strong_close":
                weight = None
            case "em_open":
                italic = True
            case "em_close":
                italic = None
            case "link_open":
                address = str(token.attrGet("href") or "")
                link = address if address.startswith(("http://", "https://", "mailto:")) else None
            case "link_close":
                link = None
            case "softbreak" | "hardbreak":
                runs.append(TextRun(" ", weight, italic, link=link))
            case "text" | "code_inline" if token.content:
                runs.append(TextRun(token.content, weight, italic, link=link))
            case kind if kind in _LOST:
                lost.add(_LOST[kind])
    return tuple(runs)


class _Page:
    """A slide while it is being read."""

    def __init__(self, heading: tuple[TextRun, ...], section: str) -> None:
        self.heading, self.section = heading, section
        self.words: list[tuple[tuple[TextRun, ...], str, int]] = []
        self.notes: list[str] = []


def read_outline(data: bytes, name: str, show_id: str) -> tuple[Show, tuple[str, ...]]:
    """The show that an outline describes, and sentences for what could not be carried over.

    Raises BadMedia for a file without a heading, that is no text, or that would make over a thousand slides.
    """
    if len(data) > MOST_BYTES:
        raise BadMedia(
            f"“{name}” has {len(data) / 1e6:.1f} MB; an outline has at most {MOST_BYTES / 1e6:.0f} MB. "
            "Nothing was made of it."
        )
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadMedia(f"“{name}” is not text in UTF-8. Nothing was made of it.") from error
    lost: set[str] = set()
    title, pages, under = _pages(MarkdownIt("commonmark").parse(text), lost)
    if title is None and not pages:
        raise BadMedia(f"“{name}” has no heading: a line that begins with ## makes a slide. Nothing was made of it.")
    if len(pages) > MOST_SLIDES:
        raise BadMedia(
            f"“{name}” would make {len(pages)} slides; at most {MOST_SLIDES} can be made at once. "
            "Nothing was made of it."
        )
    theme, frame = Theme(), Frame()
    slides = [_opening(title, under, theme, frame)] if title is not None else []
    slides += [_slide(f"s{number}", page, theme, frame) for number, page in enumerate(pages, 1)]
    told = (f"Left out of “{name}”: {', '.join(sorted(lost))}.",) if lost else ()
    plain = "".join(run.text for run in title) if title else pages[0].section or "Outline"
    return Show(show_id, plain[:200] or "Outline", slides=tuple(slides)), told


def _pages(tokens: list[Token], lost: set[str]) -> tuple[tuple[TextRun, ...] | None, list[_Page], _Page]:
    """Title, slides, and the lines under the title before the first slide."""
    title: tuple[TextRun, ...] | None = None
    under = _Page((), "")
    pages: list[_Page] = []
    section, lists, quoted, heading = "", [], 0, 0  # type: str, list[str], int, int
    for token in tokens:
        match token.type:
            case "heading_open":
                heading = int(token.tag[1])
            case "heading_close":
                heading = 0
            case "bullet_list_open" | "ordered_list_open":
                lists.append("bullets" if token.type == "bullet_list_open" else "numbers")
            case "bullet_list_close" | "ordered_list_close":
                lists.pop()
            case "blockquote_open":
                quoted += 1
            case "blockquote_close":
                quoted -= 1
            case "inline":
                runs = _runs(token.children or [], lost)
                if not runs:
                    continue
                page = pages[-1] if pages else under
                if heading == 1 and title is None and not pages:
                    title = runs
                elif heading == 1:
                    section = "".join(run.text for run in runs)[:200]
                elif heading == 2:
                    pages.append(_Page(runs, section))
                    section = ""
                elif quoted:
                    page.notes.append("".join(run.text for run in runs))
                elif heading:
                    page.words.append(
                        (tuple(TextRun(run.text, BOLD, run.italic, link=run.link) for run in runs), "none", 0)
                    )
                else:
                    page.words.append((runs, lists[-1] if lists else "none", min(max(len(lists) - 1, 0), 5)))
            case kind if kind in _LOST:
                lost.add(_LOST[kind])
    return title, pages, under


def _words(
    slide_id: str,
    layout: str,
    place_name: str,
    lines: list[tuple[tuple[TextRun, ...], str, int]],
    theme: Theme,
    frame: Frame,
) -> Text:
    place = next(entry for entry in layout_named(layout).places if entry.name == place_name)
    object_id = f"{slide_id}-{place_name}"
    paragraphs = tuple(
        Paragraph(f"{object_id}-{number}", runs, kind, level)  # type: ignore[arg-type]
        for number, (runs, kind, level) in enumerate(lines, 1)
    )
    return Text(
        object_id,
        place.title,
        box_of(place, frame),
        place=place_name,
        paragraphs=paragraphs,
        **look_of(place, theme, frame),
    )


def _opening(title: tuple[TextRun, ...], under: _Page, theme: Theme, frame: Frame) -> Slide:
    objects = [_words("opening", "title", "title", [(title, "none", 0)], theme, frame)]
    if under.words:
        objects.append(_words("opening", "title", "subtitle", under.words, theme, frame))
    return Slide(
        "opening",
        "Opening",
        advance=AdvanceAfter(5000),
        objects=tuple(objects),
        layout="title",
        notes="\n".join(under.notes),
    )


def _slide(slide_id: str, page: _Page, theme: Theme, frame: Frame) -> Slide:
    layout = "heading and text" if page.words else "heading"
    objects = [_words(slide_id, layout, "heading", [(page.heading, "none", 0)], theme, frame)]
    if page.words:
        objects.append(_words(slide_id, layout, "words", page.words, theme, frame))
    name = "".join(run.text for run in page.heading)[:200]
    return Slide(
        slide_id,
        name,
        advance=AdvanceAfter(5000),
        objects=tuple(objects),
        layout=layout,
        notes="\n".join(page.notes),
        opens_section=page.section,
    )


def _escape(text: str) -> str:
    return _SIGNS.sub(r"\\\1", " ".join(text.split()))


def _mark_runs(runs: tuple[TextRun, ...]) -> str:
    """Runs with the signs of Markdown around their text; white space stays outside."""
    parts = []
    for run in runs:
        core = run.text.strip()
        if not core:
            parts.append(" " if run.text else "")
            continue
        words = _escape(core)
        words = f"*{words}*" if run.italic else words
        words = f"**{words}**" if (run.weight or 0) >= BOLD else words
        words = f"[{words}]({run.link})" if run.link and not run.link.startswith("#") else words
        parts.append(f"{' ' if run.text[0].isspace() else ''}{words}{' ' if run.text[-1].isspace() else ''}")
    return "".join(parts).strip()


def _lines(paragraphs: tuple[Paragraph, ...]) -> list[str]:
    """Paragraphs as blocks of Markdown; items of one list stand together."""
    found: list[str] = []
    listing = False
    for paragraph in paragraphs:
        words = _mark_runs(paragraph.runs)
        if not words:
            continue
        # At a line's beginning "1. " and "- " would be a list, "---" a rule.
        plain = re.sub(r"^(\d+)([.)])(?=\s|$)", r"\1\\\2", re.sub(r"^([-+=])", r"\\\1", words))
        if not listing or paragraph.list == "none":
            found.append("")
        listing = paragraph.list != "none"
        found.append(
            f"{'   ' * paragraph.level}{'1.' if paragraph.list == 'numbers' else '-'} {words}" if listing else plain
        )
    return found


def write_outline(show: Show) -> str:
    """The text of the show in order. Pictures, places, builds and times are left out; skipped slides are included."""
    lines = [f"# {_escape(show.title)}"]
    for number, slide in enumerate(show.slides):
        texts = [
            item
            for item in slide.objects
            if isinstance(item, TextHolder) and any(paragraph.text.strip() for paragraph in item.paragraphs)
        ]
        heads = [item for item in texts if (place := place_of(slide, item)) and place.name in ("heading", "title")]
        rest = [item for item in texts if item not in heads]
        opening = number == 0 and slide.layout == "title" and bool(heads)
        if slide.opens_section:
            lines += ["", f"# {_escape(slide.opens_section)}"]
        if not opening:
            heading = " ".join(
                _mark_runs(paragraph.runs) for item in heads[:1] for paragraph in item.paragraphs
            ) or _escape(slide.name or f"Slide {number + 1}")
            lines += ["", f"## {heading}"]
        for item in rest + heads[1:]:
            lines += _lines(item.paragraphs)
        for note in slide.notes.splitlines():
            if note.strip():
                lines += ["", f"> {_lines((Paragraph('n', (TextRun(note),)),))[-1]}"]
    return "\n".join(lines) + "\n"


EXPORTS = (
    Export(
        address="outline.md",
        ending=".md",
        content_type="text/markdown",
        words="Outline",
        about="Its words as Markdown: pictures, places and times are not in it",
        write=write_outline,
        place=1,
    ),
)
