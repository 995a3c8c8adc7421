"""Sections: slides that belong together.

A section begins with the slide that names it and goes on until the next that does; slides are moved, copied and removed
without their section falling apart.
"""

from collections.abc import Collection, Mapping, Sequence

import msgspec

from ritornel.core.document.show import Show, Slide


class Section(msgspec.Struct, frozen=True):
    """A section with its slides in order; the one before the first that has a name is called nothing."""

    name: str
    slide_ids: tuple[str, ...]


def sections_of(slides: Sequence[Slide]) -> tuple[Section, ...]:
    """The sections in order; none where no slide opens one.

    Slides a, b (opens “The town”), c and d (opens “Noon”) are the sections “” with a, “The town” with b and c, “Noon”
    with d.
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
    """The sections as they are played: without skipped slides, and without those of which nothing is shown.

    A skipped slide that opens one leaves that to the next.
    """
    shown = {slide.id for slide in show.shown}
    kept = (
        Section(section.name, tuple(entry for entry in section.slide_ids if entry in shown))
        for section in sections_of(show.slides)
    )
    return tuple(section for section in kept if section.slide_ids)


def handed_on(show: Show, going: Collection[str]) -> dict[str, str]:
    """What each slide opens once some slides have gone from where they stand, for those where that is another thing
    than before. A section some of whose slides stay is opened by the first of them; the slide that goes opens
    nothing any more. One that goes whole keeps its name.
    """
    names: dict[str, str] = {}
    for section in sections_of(show.slides):
        staying = [slide_id for slide_id in section.slide_ids if slide_id not in going]
        first = section.slide_ids[0]
        if section.name and first in going and staying:
            names[first] = ""
            names[staying[0]] = section.name
    return names


def renamed(show: Show, names: dict[str, str]) -> tuple[Slide, ...]:
    """The slides that open another section than before, as they are then."""
    return tuple(
        msgspec.structs.replace(slide, opens_section=names[slide.id]) for slide in show.slides if slide.id in names
    )


def people_of_section(section: Section, show: Show, invited: Mapping[str, str]) -> tuple[str, ...]:
    """Whose section it is, each name once, in the order of its slides: who was `invited` to it, by a slide of it, and
    to whom its slides were given.
    """
    given = {slide.id: slide.given_to for slide in show.slides if slide.given_to}
    by_slide = given | dict(invited)
    return tuple(dict.fromkeys(by_slide[slide] for slide in section.slide_ids if slide in by_slide))


_NUMERALS = ((100, "C"), (90, "XC"), (50, "L"), (40, "XL"), (10, "X"), (9, "IX"), (5, "V"), (4, "IV"), (1, "I"))


def section_number(place: int) -> str:
    """The section at a place, 0 being the first, in Roman numerals: 0 is I, 3 is IV, 8 is IX, 41 is XLII."""
    left, written = place + 1, ""
    for value, sign in _NUMERALS:
        written += sign * (left // value)
        left %= value
    return written
