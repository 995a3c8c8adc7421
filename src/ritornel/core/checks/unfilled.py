"""Empty places of a slide's layout."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding
from ritornel.core.document.layouts import empty_places

TITLE = "Places left unfilled"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each slide with empty places. The show does not draw the places, but the gap is seen."""
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
