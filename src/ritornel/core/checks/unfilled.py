"""Places of a slide's layout that nobody has filled."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding
from ritornel.core.document.layouts import empty_places

TITLE = "Places left unfilled"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One for each slide that has any; places are not seen while a show is played, the gap is."""
    for shown in look.slides:
        slide = shown.slide
        places = empty_places(slide)
        if not places:
            continue
        names = " and ".join(f"“{place.name}”" for place in places)
        title = f"The place{'s' if len(places) > 1 else ''} {names} {'are' if len(places) > 1 else 'is'} left unfilled"
        yield shown.finding(
            "unfilled",
            "unfilled",
            "polish",
            title=title,
            why="A gap stands where the layout has something.",
        )
