"""The data of the Record page: the show's sections with their progress, and one of them slide by slide with
its takes.
"""

from collections.abc import Mapping
from typing import Any

import msgspec

from ritornel.core.document.camera import uncovered_ms
from ritornel.core.document.decoding import from_json
from ritornel.core.document.sections import Section, section_number
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.rehearsal.beats import beat_lines
from ritornel.core.rehearsal.recording import (
    RecordedSlide,
    SectionProgress,
    find_misfits,
    leaving_cue,
    leaving_cues,
    pieces_of,
    recordable_sections,
    section_state,
)
from ritornel.core.rehearsal.selected_takes import kept_slides
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.reading import speaking_ms
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.web.editor.services import style_stamp, thumb_address
from ritornel.web.people.services import called
from ritornel.web.shows.services import Show
from ritornel.web.takes.models import Pick, Recording
from ritornel.web.takes.recording_files import has_picture, picture_ms, sound_id


class Recorded(msgspec.Struct, frozen=True):
    """A recording's row with its decoded take."""

    row: Recording
    take: TakeValue
    pieces: tuple[RecordedSlide, ...]


class Desk(msgspec.Struct, frozen=True):
    """The recordings of a show: the picks are pieces by slide. The person may see only some of the sections."""

    show: ShowValue
    sections: tuple[Section, ...]
    recordings: tuple[Recorded, ...]
    picks: dict[str, tuple[Recorded, RecordedSlide]]
    seen: tuple[Section, ...] = ()

    def of(self, section: Section) -> list[Recorded]:
        """The recordings of a section: those made of any of its slides."""
        return [entry for entry in self.recordings if set(entry.row.slide_ids) & set(section.slide_ids)]


def desk_of(row: Show, show: ShowValue) -> Desk:
    """The show's recordings and picks, in two queries."""
    leaving = leaving_cues(show)
    recordings = []
    for entry in Recording.objects.filter(show=row, number__gt=0).select_related("person"):
        take = from_json(bytes(entry.body), TakeValue, "The recording")
        recordings.append(Recorded(entry, take, pieces_of(take, leaving)))
    by_id = {entry.row.id: entry for entry in recordings}
    picks = {}
    for pick in Pick.objects.filter(show=row):
        found = by_id.get(pick.recording_id)
        if found is not None and pick.piece < len(found.pieces):
            picks[pick.slide_id] = (found, found.pieces[pick.piece])
    return Desk(show, recordable_sections(show), tuple(recordings), picks)


def plan_of(show: ShowValue) -> dict[str, int]:
    """The length of each slide in the present show."""
    return {slide.slide_id: slide.length_ms for slide in compile_show(show).slides}


def standing_of(desk: Desk, section: Section, plan: Mapping[str, int], who: str = "") -> SectionProgress:
    """The progress of a section's recordings."""
    takes = desk.of(section)
    picked = {slide: desk.picks[slide] for slide in section.slide_ids if slide in desk.picks}
    sounds = {slide: sound_id(entry.row.id, piece) for slide, (entry, piece) in picked.items()}
    kept = set(kept_slides(desk.show, sounds)) & set(section.slide_ids)
    numbers = desk.show.numbers
    last = takes[-1] if takes else None
    return SectionProgress(
        slides=len(section.slide_ids),
        picked=len(picked),
        kept=len(kept),
        takes=len(takes),
        kept_takes=tuple(sorted({picked[slide][0].row.number for slide in kept})),
        progress=last.row.progress if last else None,
        at_slide=numbers.get(last.pieces[-1].slide_id, 0) if last and last.pieces else 0,
        picked_ms=sum(piece.lasts_ms for _, piece in picked.values()),
        plan_ms=sum(plan[slide] for slide in section.slide_ids),
        who=who,
    )


def section_lines(desk: Desk, assigned: Mapping[str, str]) -> list[dict[str, Any]]:
    """Each visible section, for the list; `assigned` gives its person by first slide."""
    plan, numbers = plan_of(desk.show), desk.show.numbers
    lines = []
    for place, section in enumerate(desk.sections):
        if section not in desk.seen:
            continue
        standing = standing_of(desk, section, plan, assigned.get(section.slide_ids[0], ""))
        lines.append(
            {
                "id": section.slide_ids[0],
                "number": section_number(place),
                "name": section.name or ("The whole show" if len(desk.sections) == 1 else "Without a name"),
                "first": numbers[section.slide_ids[0]],
                "last": numbers[section.slide_ids[-1]],
                "slide_ids": section.slide_ids,
                "plan_ms": standing.plan_ms,
                "picked_ms": standing.picked_ms,
                "picked": standing.picked,
                "takes": standing.takes,
                "who": standing.who,
                "state": section_state(standing),
            }
        )
    return lines


def _slides(desk: Desk, section: Section) -> list[dict[str, Any]]:
    show, plan = desk.show, plan_of(desk.show)
    style, numbers = style_stamp(show), show.numbers
    lines = []
    for staged in perform(msgspec.structs.replace(show, music=())).slides:
        slide = staged.slide
        if slide.id not in section.slide_ids:
            continue
        cues = [beat.wait.cue_id for beat in staged.schedule.beats if beat.wait is not None]
        lines.append(
            {
                "id": slide.id,
                "name": slide.name or "Untitled",
                "number": numbers[slide.id],
                "thumb": thumb_address(show, slide, style, numbers[slide.id]),
                "plan_ms": plan[slide.id],
                "cues": [*cues, leaving_cue(slide)],
                "notes": slide.notes,
                "spoken_ms": speaking_ms(slide),
                "beats": beat_lines(slide, staged.schedule, 0),
            }
        )
    return lines


def _piece_line(recording_id: str, piece: RecordedSlide) -> dict[str, Any]:
    """A piece for the page: `still_ms` is how long the camera's picture stands still at its end, None until that is
    known.
    """
    line = {**msgspec.to_builtins(piece), "camera": has_picture(recording_id, piece), "still_ms": 0}
    if line["camera"]:
        lasts_ms = picture_ms(recording_id, piece)
        line["still_ms"] = None if lasts_ms is None else uncovered_ms(piece.lasts_ms, lasts_ms)
    return line


def take_line(entry: Recorded, desk: Desk) -> dict[str, Any]:
    """A recording for the page."""
    row = entry.row
    return {
        "id": row.id,
        "number": row.number,
        "length_ms": entry.take.ended_ms,
        "cues": sum(len(piece.waits) for piece in entry.pieces),
        "progress": row.progress,
        "who": called(row.person),
        "placement": row.placement,
        "not_fitting": find_misfits(desk.show, entry.pieces),
        "pieces": [_piece_line(row.id, piece) for piece in entry.pieces],
    }


def section_detail(desk: Desk, section: Section) -> dict[str, Any]:
    """A section slide by slide, with its takes and the selected pieces."""
    return {
        "id": section.slide_ids[0],
        "slides": _slides(desk, section),
        "takes": [take_line(entry, desk) for entry in desk.of(section)],
        "picks": {
            slide: [entry.row.id, piece.number]
            for slide, (entry, piece) in desk.picks.items()
            if slide in section.slide_ids
        },
    }
