"""A recorded clip before or after the show, or on a slide."""

from typing import Literal

import msgspec

from ritornel.core.document.camera import Placement, camera_box
from ritornel.core.document.changes import Change, InsertAsset, InsertSlide, PutMusic
from ritornel.core.document.edits.draft import Draft, put, slide_of, title_of
from ritornel.core.document.edits.voices import check_voice
from ritornel.core.document.objects import PLAYS, Box, Clip, Id, Plain
from ritornel.core.document.sections import sections_of
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceWithVoice,
    Asset,
    Build,
    Follows,
    OnCue,
    Show,
    ShowEnd,
    ShowStart,
    Slide,
    SlideEnd,
    SlideStart,
    Together,
    Transition,
    Voice,
)
from ritornel.core.errors import BadValue

ON_SLIDE = Placement("rectangle", 74.0, 66.0, 40.0)
"""Where a clip that is recorded onto a slide stands at first."""


def _playing(clip: Clip, starts: Follows | Together = Follows()) -> Build:
    return Build(id=f"{clip.id}-b", object_id=clip.id, effect=PLAYS, starts=starts, lasts_ms=0)


def _clip(asset: Asset, object_id: str, name: str, box: Box) -> Clip:
    if asset.kind != "clip":
        raise BadValue(f"“{asset.name}” is no clip.", "asset")
    return Clip(object_id, name, box, asset.id, out_ms=asset.lasts_ms, alternative=name)


class PutGreeting(msgspec.Struct, frozen=True, tag_field="do", tag="put greeting"):
    """Puts a greeting before the show, or a farewell after it, on a slide of its own.

    Ids begin with `stem`. Music and ambience stay over the slides they were over, also where they were anchored to the
    start or end of the show.
    """

    stem: Id
    asset: Asset
    at: Literal["before", "after"]

    def draft(self, show: Show) -> Draft:
        before = self.at == "before"
        name = "Greeting" if before else "Farewell"
        frame = show.frame
        clip = _clip(self.asset, f"{self.stem}-c", name, Box(0, 0, frame.width_px, frame.height_px))
        opens = name if sections_of(show.slides) and not (before and not show.slides[0].opens_section) else ""
        slide = Slide(
            f"{self.stem}-s",
            name,
            background=Plain("#101a1f"),
            transition=Transition("dissolve", 600),
            advance=AdvanceAfter(0),
            objects=(clip,),
            order=(_playing(clip),),
            bare=True,
            opens_section=opens,
        )
        shown = show.shown
        music = show.music
        if shown and before:
            music = tuple(
                msgspec.structs.replace(span, start=SlideStart(shown[0].id))
                if isinstance(span.start, ShowStart)
                else span
                for span in music
            )
        elif shown:
            music = tuple(
                msgspec.structs.replace(span, end=SlideEnd(shown[-1].id)) if isinstance(span.end, ShowEnd) else span
                for span in music
            )
        changes: list[Change] = [] if show.asset(self.asset.id) else [InsertAsset(len(show.assets), self.asset)]
        changes.append(InsertSlide(0 if before else len(show.slides), slide))
        if music != show.music:
            changes.append(PutMusic(music))
        return Draft(tuple(changes), f"Put a {name.lower()} {self.at} the show")


class PutRecorded(msgspec.Struct, frozen=True, tag_field="do", tag="put recorded"):
    """Puts a recording onto a slide: a clip that plays on arrival in `box`, or a voice. With a voice, a slide that goes
    on by itself then goes on after the voice.
    """

    slide_id: Id
    stem: Id
    asset: Asset
    box: Box | None = None

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        shelved: tuple[Change, ...] = () if show.asset(self.asset.id) else (InsertAsset(len(show.assets), self.asset),)
        if self.asset.kind == "sound":
            voice = Voice(self.asset.id, self.asset.lasts_ms)
            check_voice(msgspec.structs.replace(show, assets=(*show.assets, self.asset)), voice)
            advance = AdvanceWithVoice() if isinstance(slide.advance, AdvanceAfter) else slide.advance
            return Draft((*shelved, *put(slide, voice=voice, advance=advance)), f"Record a voice for {title_of(slide)}")
        clip = _clip(self.asset, f"{self.stem}-c", "Recorded clip", self.box or camera_box(show.frame, ON_SLIDE))
        # It plays with what arrives last of beat 0, so that nothing waits for it but the first cue.
        at = next(
            (place for place, build in enumerate(slide.order) if isinstance(build.starts, OnCue)), len(slide.order)
        )
        order = (*slide.order[:at], _playing(clip, Together() if at else Follows()), *slide.order[at:])
        return Draft(
            (*shelved, *put(slide, objects=(*slide.objects, clip), order=order)),
            f"Record a clip onto {title_of(slide)}",
        )
