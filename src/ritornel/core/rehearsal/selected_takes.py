"""Pieces of recordings, selected slide by slide, as voices and timing of the show."""

from collections.abc import Collection, Mapping

import msgspec

from ritornel.core.document.camera import SEEN_SHAPES, Placement, camera_box, camera_clip
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import (
    AddAssets,
    AddObjects,
    ChangeSlides,
    DropAssets,
    Edit,
    PutVoice,
    RemoveObjects,
    Several,
    apply_edit,
)
from ritornel.core.document.integrity import cue_ids
from ritornel.core.document.objects import Box, Clip
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, AdvanceWithVoice, Asset, Show, Slide, Voice
from ritornel.core.document.uses import uses_of
from ritornel.core.errors import BadValue
from ritornel.core.layout.clear_place import clear_place, covers_words
from ritornel.core.layout.drawing import scenery_of
from ritornel.core.rehearsal.recording import RecordedSlide

RECORDED = "rec-"
"""How the ids of what was recorded begin, on the shelf and on slides."""


class Picked(msgspec.Struct, frozen=True):
    """A selected piece with its sound and, where a camera ran, its picture, as assets for the shelf."""

    piece: RecordedSlide
    sound: Asset
    picture: Asset | None = None
    placement: Placement = Placement()


def camera_id(slide: Slide) -> str:
    """The id of the camera's clip on a slide. A slide has at most one."""
    return f"{RECORDED}{slide.id}"[:40]


def voice_of(slide: Slide, picked: Picked) -> Voice:
    """The slide's voice from a piece: from the slide's 0 on, with a mark at each cue that the slide still has, and one
    where it was left.
    """
    known = set(cue_ids(slide))
    marks = {cue: at_ms for cue, at_ms in picked.piece.cues.items() if cue in known}
    if isinstance(slide.advance, AdvanceOnCue):
        marks[slide.advance.cue_id] = picked.piece.lasts_ms
    return Voice(picked.sound.id, min(picked.piece.lasts_ms, picked.sound.lasts_ms), marks=marks)


def _set_length(slide: Slide, lasts_ms: int) -> dict[str, object]:
    """The slide's advance with its length changed to the piece's; the way it advances stays."""
    if isinstance(slide.advance, AdvanceAfter):
        return {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=lasts_ms))}
    if isinstance(slide.advance, AdvanceWithVoice):
        return {"advance": to_builtins(AdvanceWithVoice(0))}
    return {}


def keep_edit(show: Show, picks: Mapping[str, Picked], name: str) -> Edit:
    """The edit that makes the selected pieces the voices of their slides, and their cues and lengths the slides'
    timing.

    Earlier recordings of these slides leave the shelf where nothing else uses them. Raises BadValue where nothing is
    selected, or a piece is empty. A slide on cue whose piece has a cue at 3 200 and was left after 9 000: its beat 1
    begins at 3 200, and it is 9 000 long.
    """
    chosen = [slide for slide in show.slides if slide.id in picks]
    if not chosen:
        raise BadValue("Nothing is picked that could be kept.", "picks")
    known = {asset.id for asset in show.assets}
    edits: list[Edit] = []
    for slide in chosen:
        picked = picks[slide.id]
        if picked.piece.lasts_ms < 1:
            raise BadValue(f"The piece that is picked for slide “{slide.name or slide.id}” is empty.", "picks")
        fresh = tuple(asset for asset in (picked.sound, picked.picture) if asset is not None and asset.id not in known)
        if fresh:
            edits.append(AddAssets(fresh))
            known.update(asset.id for asset in fresh)
        edits.append(PutVoice(slide.id, voice_of(slide, picked)))
        timed = _set_length(slide, picked.piece.lasts_ms)
        if timed:
            edits.append(ChangeSlides((slide.id,), timed))
        edits.extend(_camera(show, slide, picked))
    edits.extend(_drop_earlier(show, chosen, edits))
    return Several(f"Keep {name}", tuple(edits))


def _camera(show: Show, slide: Slide, picked: Picked) -> list[Edit]:
    own = camera_id(slide)
    edits: list[Edit] = [RemoveObjects(slide.id, (own,))] if slide.object(own) is not None else []
    if picked.picture is None or picked.placement.shape not in SEEN_SHAPES:
        return edits
    clip = camera_clip(show.frame, picked.placement, picked.picture, own, picked.piece.lasts_ms)
    return [*edits, AddObjects(slide.id, (_beside_words(show, slide, clip),))]


def _beside_words(show: Show, slide: Slide, clip: Clip) -> Clip:
    """The clip where it was placed, or, where that would cover text of this slide, at a clear place."""
    box = _clear_of_words(show, slide, clip.box)
    if box is None:
        return clip
    corner = box.width / 2 if clip.corner_px >= clip.box.width / 2 else clip.corner_px
    return msgspec.structs.replace(clip, box=box, corner_px=corner)


def _clear_of_words(show: Show, slide: Slide, box: Box) -> Box | None:
    """Another place for the camera's picture where it would cover text of this slide; None where it may stay."""
    scenery = scenery_of(show)
    rest = tuple(item for item in slide.objects if item.id != camera_id(slide))
    if not covers_words(box, rest, scenery):
        return None
    others = msgspec.structs.replace(slide, objects=rest)
    return clear_place(others, show.frame, scenery, box.height / box.width, 100 * box.width / show.frame.width_px)


def find_clear_places(show: Show, placement: Placement, slide_ids: Collection[str]) -> dict[str, Box]:
    """The other place of the camera's picture, for each slide whose text it would cover.

    Record shows it before anything is recorded.
    """
    if placement.shape not in SEEN_SHAPES:
        return {}
    box = camera_box(show.frame, placement)
    places = {slide.id: _clear_of_words(show, slide, box) for slide in show.slides if slide.id in slide_ids}
    return {slide_id: place for slide_id, place in places.items() if place is not None}


def _drop_earlier(show: Show, chosen: list[Slide], edits: list[Edit]) -> list[Edit]:
    """The edit that removes earlier recordings of these slides from the shelf, where nothing uses them
    after the edits.
    """
    ids = {slide.id for slide in chosen}
    before, after = uses_of(show), uses_of(apply_edit(show, Several("", tuple(edits))).show)
    gone = tuple(
        asset.id
        for asset in show.assets
        if asset.id.startswith(RECORDED)
        and asset.id in before
        and asset.id not in after
        and set(before[asset.id]) <= ids
    )
    return [DropAssets(gone)] if gone else []


def kept_slides(show: Show, sounds: Mapping[str, str]) -> tuple[str, ...]:
    """The slides that already have the selected voice; `sounds` are the asset ids of the selected sounds by slide."""
    return tuple(
        slide.id for slide in show.slides if slide.voice is not None and sounds.get(slide.id) == slide.voice.asset_id
    )
