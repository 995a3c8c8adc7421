"""Edits of whole slides."""

from typing import Any, Literal

import msgspec

from ritornel.core.document.anchors import anchor_again, find_reversed_spans
from ritornel.core.document.changes import (
    Change,
    InsertSlide,
    MoveSlide,
    PutMarks,
    PutMusic,
    PutSlide,
    RemoveSlide,
    slide_index,
)
from ritornel.core.document.copying import copy_of_slide
from ritornel.core.document.decoding import replace_fields
from ritornel.core.document.drifts import IN_TURN, DriftWay, set_drift
from ritornel.core.document.edits.draft import Draft, check_named, of_slides, slide_of, title_of
from ritornel.core.document.edits.voices import check_voice
from ritornel.core.document.integrity import check_ground, check_slide
from ritornel.core.document.layouts import layout_named, refit_slide
from ritornel.core.document.objects import GoToSlide, Id, Picture, PictureBackground
from ritornel.core.document.sections import hand_on_openings, rename_openings
from ritornel.core.document.show import AdvanceOnCue, Show, Slide, first_advance
from ritornel.core.errors import BadValue

OWN_FIELDS = {
    "name",
    "background",
    "transition",
    "advance",
    "notes",
    "skipped",
    "bare",
    "links",
    "unlinks",
    "opens_on",
    "opens_section",
    "also_live",
    "given_to",
}


class AddSlide(msgspec.Struct, frozen=True, tag_field="do", tag="add slide"):
    """Adds a slide at a place in the order.

    With `as_show_runs` it advances as new slides of the show do.
    """

    at: int
    slide: Slide
    as_show_runs: bool = False

    def draft(self, show: Show) -> Draft:
        slide = self.slide
        if self.as_show_runs:
            slide = msgspec.structs.replace(slide, advance=first_advance(show.runs, f"{slide.id}-out"))
        if show.slide(self.slide.id) is not None:
            raise BadValue(f"Adding a slide: there is already a slide “{self.slide.id}”.", "slide.id")
        layout_named(self.slide.layout)
        check_slide(self.slide)
        for item in self.slide.objects:
            check_named(show, item, "Adding")
        if self.slide.voice is not None:
            check_voice(show, self.slide.voice)
        return Draft((InsertSlide(self.at, slide),), f"Add {title_of(slide)}")


class DuplicateSlides(msgspec.Struct, frozen=True, tag_field="do", tag="duplicate slides"):
    """Copies slides; the copies come after the last original. Ids begin with `stem`; the copy of a single slide is
    `stem-s`.
    """

    slide_ids: tuple[Id, ...]
    stem: Id

    def draft(self, show: Show) -> Draft:
        originals = sorted(slide_index(show, slide_id) for slide_id in self.slide_ids)
        if not originals:
            raise BadValue("No slide was picked.", "slide_ids")
        changes: list[Change] = []
        for number, at in enumerate(originals):
            stem = self.stem if len(originals) == 1 else f"{self.stem}-{number + 1}"
            changes.append(InsertSlide(originals[-1] + 1 + number, copy_of_slide(show.slides[at], stem)))
        return Draft(tuple(changes), f"Duplicate {of_slides([show.slides[at] for at in originals])}")


class RemoveSlides(msgspec.Struct, frozen=True, tag_field="do", tag="remove slides"):
    slide_ids: tuple[Id, ...]

    def draft(self, show: Show) -> Draft:
        gone = set(self.slide_ids)
        label = f"Remove {of_slides([slide_of(show, slide_id) for slide_id in dict.fromkeys(self.slide_ids)])}"
        music, notices = anchor_again(show, gone)
        changes: list[Change] = [] if music == show.music else [PutMusic(music)]
        lost = [mark.name for mark in show.marks if mark.slide_id in gone]
        if lost:
            changes.append(PutMarks(tuple(mark for mark in show.marks if mark.slide_id not in gone)))
            notices += (
                f"The mark{'s' if len(lost) > 1 else ''} {', '.join(lost)} went with "
                f"{'them' if len(gone) > 1 else 'it'}.",
            )
        freed = 0
        opening = hand_on_openings(show, gone)
        for slide in show.slides:
            if slide.id in gone:
                continue
            if slide.id in opening:
                slide = msgspec.structs.replace(slide, opens_section=opening[slide.id])
                changes.append(PutSlide(slide))
            pointing = [
                item for item in slide.objects if isinstance(item.press, GoToSlide) and item.press.slide_id in gone
            ]
            if pointing:
                freed += len(pointing)
                objects = tuple(
                    msgspec.structs.replace(item, press=None) if item in pointing else item for item in slide.objects
                )
                changes.append(PutSlide(msgspec.structs.replace(slide, objects=objects)))
        if freed:
            notices += (f"A press on {freed} object{'s' if freed > 1 else ''} led there; it does nothing now.",)
        return Draft((*changes, *(RemoveSlide(item) for item in dict.fromkeys(self.slide_ids))), label, notices)


class ReorderSlides(msgspec.Struct, frozen=True, tag_field="do", tag="move slides"):
    """Moves the slides, in their order, to index `to` of the remaining slides."""

    slide_ids: tuple[Id, ...]
    to: int

    def draft(self, show: Show) -> Draft:
        moving = set(self.slide_ids)
        chosen = [slide_of(show, slide_id) for slide_id in self.slide_ids]
        taken = [slide.id for slide in show.slides if slide.id in moving]
        rest = [slide.id for slide in show.slides if slide.id not in moving]
        to = max(0, min(self.to, len(rest)))
        wanted = [*rest[:to], *taken, *rest[to:]]
        # A slide that is moved away leaves its section behind; a section that is moved whole keeps its name.
        changes: list[Change] = (
            []
            if now_order(show) == wanted
            else [PutSlide(slide) for slide in rename_openings(show, hand_on_openings(show, moving))]
        )
        now = now_order(show)
        for at, slide_id in enumerate(wanted):
            if now[at] != slide_id:
                now.remove(slide_id)
                now.insert(at, slide_id)
                changes.append(MoveSlide(slide_id, at))
        return Draft(tuple(changes), f"Move {of_slides(chosen)}", find_reversed_spans(show, wanted))


def now_order(show: Show) -> list[str]:
    """The ids of all slides in their present order."""
    return [slide.id for slide in show.slides]


class ChangeSlides(msgspec.Struct, frozen=True, tag_field="do", tag="change slides"):
    """Changes name, background, transition, advance, also_live, notes, skipped and bare of one or several slides.
    Objects and builds have edits of their own. Where several slides advance on cue, each gets a cue of its own, named
    from `stem`.
    """

    slide_ids: tuple[Id, ...]
    changes: dict[str, Any]
    stem: str = ""

    def draft(self, show: Show) -> Draft:
        slides = [slide_of(show, slide_id) for slide_id in self.slide_ids]
        if not slides:
            raise BadValue("No slide was picked.", "slide_ids")
        foreign = set(self.changes) - OWN_FIELDS
        subject = f"Changing {of_slides(slides)}"
        if foreign:
            raise BadValue(f"{subject}: it has no field “{sorted(foreign)[0]}” that can be set.", sorted(foreign)[0])
        changes = []
        for number, slide in enumerate(slides):
            result: Slide = replace_fields(slide, self.changes, Slide, subject)
            if len(slides) > 1 and isinstance(result.advance, AdvanceOnCue) and "advance" in self.changes:
                own = slide.advance.cue_id if isinstance(slide.advance, AdvanceOnCue) else f"{self.stem}-{number}"
                result = msgspec.structs.replace(result, advance=msgspec.structs.replace(result.advance, cue_id=own))
            if isinstance(result.background, PictureBackground):
                check_ground(show, result.background, subject)
            check_slide(result)
            changes.append(PutSlide(result))
        return Draft(tuple(changes), f"Change {', '.join(sorted(self.changes))} of {of_slides(slides)}")


class DriftSlides(msgspec.Struct, frozen=True, tag_field="do", tag="drift slides"):
    """Makes all pictures of slides drift, all in one direction or *in turn* in different ones, or stand still."""

    slide_ids: tuple[Id, ...]
    way: DriftWay | Literal["in turn"]

    def draft(self, show: Show) -> Draft:
        slides = [slide_of(show, slide_id) for slide_id in self.slide_ids]
        changes: list[Change] = []
        for number, slide in enumerate(
            slide for slide in slides if any(isinstance(item, Picture) for item in slide.objects)
        ):
            way = IN_TURN[number % len(IN_TURN)] if self.way == "in turn" else self.way
            objects = tuple(set_drift(item, way) if isinstance(item, Picture) else item for item in slide.objects)
            changes.append(PutSlide(msgspec.structs.replace(slide, objects=objects)))
        if not changes:
            raise BadValue("None of these slides has a picture that could drift.", "slide_ids")
        return Draft(
            tuple(changes),
            f"Let the pictures of {of_slides(slides)} {'stand still' if self.way == 'none' else 'drift'}",
        )


class ChangeLayout(msgspec.Struct, frozen=True, tag_field="do", tag="change layout"):
    """Gives slides another layout. Objects move to the place of the same name; nothing is lost."""

    slide_ids: tuple[Id, ...]
    layout: str

    def draft(self, show: Show) -> Draft:
        slides = [slide_of(show, slide_id) for slide_id in self.slide_ids]
        style = (show.theme, show.frame)
        fresh = [refit_slide(slide, style, style, self.layout) for slide in slides]
        loose = [
            spare.object.name
            for old, new in zip(slides, fresh, strict=True)
            for spare in new.spares
            if spare not in old.spares
        ]
        lie = "it lies" if len(loose) == 1 else "they lie"
        notices = (f"The layout has no place for {', '.join(loose)}; {lie} beside the slide.",) if loose else ()
        return Draft(tuple(PutSlide(slide) for slide in fresh), f"Change the layout of {of_slides(slides)}", notices)
