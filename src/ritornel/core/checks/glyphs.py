"""Characters that no shipped font has."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding

TITLE = "Characters that no font has"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each slide with such characters."""
    for shown in look.slides:
        staged = shown.staged
        if not staged.drawing.missing:
            continue
        title = f"No font here has {', '.join(f'“{sign}”' for sign in staged.drawing.missing)}"
        yield shown.finding(
            "glyphs",
            "glyphs",
            "hurts",
            title=title,
            why="An empty box stands in its place.",
        )
