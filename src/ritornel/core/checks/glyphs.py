"""Characters that no font here has."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding

TITLE = "Characters that no font has"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One for each slide that has any."""
    for number, slide, staged, start in look.slides:
        if not staged.drawing.missing:
            continue
        title = f"No font here has {', '.join(f'“{sign}”' for sign in staged.drawing.missing)}"
        yield Finding(
            id=f"glyphs:{slide.id}",
            check="glyphs",
            severity="hurts",
            title=title,
            why="An empty box stands in its place.",
            slide_id=slide.id,
            number=number,
            at_ms=start,
        )
