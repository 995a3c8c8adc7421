"""Sections: slides that belong together.

A section begins with the slide that names it and lasts until the next such slide. Slides are moved, copied and removed
without breaking their section.
"""

from collections.abc import Collection, Mapping, Sequence

import msgspec

from ritornel.core.document.show import Show, Slide


class Section(msgspec.Struct, frozen=True):
    """A section with its slides in order. Slides before the first name are a section without a name."""

    name: str
    slide_ids: tuple[str, ...]


def sections_of(slides: Sequence[Slide]) -> tuple[Section, ...]:
    """The sections in order; none where no slide opens one.

    Example: of the slides a, b (opens “The town”), c and d (opens “Noon”), the sections are “” with a, “The town” with
    b and c, “Noon” with d.
    """
    if not any(slide.opens_section for slide in slides):
        return ()
    found: list[tuple[str, list[str]]] = []
    for slide in slides:
        if slide.opens_section or not found:
            found.append((slide.opens_section, []))
        found[-1][1].append(slide.id)
    return tuple(Section(name, tuple(ids)) for name, ids in found)


def shown_sections(show: Show) -> tuple[Section, ...]:
    """The sections as they are played: without skipped slides, and without sections that have no shown slide.

    Where the opening slide is skipped, the next one opens the section.
    """
    shown = {slide.id for slide in show.shown}
    kept = (
        Section(section.name, tuple(entry for entry in section.slide_ids if entry in shown))
        for section in sections_of(show.slides)
    )
    return tuple(section for section in kept if section.slide_ids)


def hand_on_openings(show: Show, going: Collection[str]) -> dict[str, str]:
    """The new opening of each slide once some slides have left their place, for those where it changes. Where a part of
    a section stays, the first remaining slide opens it, and the slide that leaves opens nothing. A section that leaves
    whole keeps its name.
    """
    names: dict[str, str] = {}
    for section in sections_of(show.slides):
        staying = [slide_id for slide_id in section.slide_ids if slide_id not in going]
        first = section.slide_ids[0]
        if section.name and first in going and staying:
            names[first] = ""
            names[staying[0]] = section.name
    return names


def rename_openings(show: Show, names: dict[str, str]) -> tuple[Slide, ...]:
    """The slides whose opened section changes, as they are then."""
    return tuple(
        msgspec.structs.replace(slide, opens_section=names[slide.id]) for slide in show.slides if slide.id in names
    )


def people_of_section(section: Section, show: Show, invited: Mapping[str, str]) -> tuple[str, ...]:
    """The people of a section, each name once, in the order of its slides: the one who is `invited` to it through one
    of its slides, and those its slides are given to.
    """
    given = {slide.id: slide.given_to for slide in show.slides if slide.given_to}
    by_slide = given | dict(invited)
    return tuple(dict.fromkeys(by_slide[slide] for slide in section.slide_ids if slide in by_slide))


_NUMERALS = ((100, "C"), (90, "XC"), (50, "L"), (40, "XL"), (10, "X"), (9, "IX"), (5, "V"), (4, "IV"), (1, "I"))


def section_number(place: int) -> str:
    """The number of section `number`, counted from 0, in Roman numerals: 0 is I, 3 is IV, 8 is IX, 41 is XLII."""
    left, written = place + 1, ""
    for value, sign in _NUMERALS:
        written += sign * (left // value)
        left %= value
    return written
