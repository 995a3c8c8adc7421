"""What types alone cannot say about a show: ids are unique, and everything that is named is there."""

import itertools
from collections.abc import Collection, Iterable
from functools import lru_cache

from ritornel.core.document.framings import WHOLE, check_framings, moves_view
from ritornel.core.document.identity import Itself
from ritornel.core.document.layouts import layout_named
from ritornel.core.document.objects import (
    LEAST_PART_MS,
    PLAYS,
    Clip,
    ClipBackground,
    GoToSlide,
    Object,
    Picture,
    PictureBackground,
    PlayClip,
    PlaySound,
    TextHolder,
)
from ritornel.core.document.show import AdvanceOnCue, Asset, Build, OnCue, Show, Slide, SoundEffect
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.time.milliseconds import time_text


def _unique(ids: Iterable[str], what: str, field: str) -> None:
    found = tuple(ids)
    if len(set(found)) < len(found):
        twice = next(item for at, item in enumerate(found) if item in found[:at])
        raise BadValue(f"Two {what} have the same id “{twice}”; each needs its own.", field)


def check_build(slide: Slide, build: Build) -> None:
    """Raises UnknownName where the build's object or part is not on the slide."""
    if moves_view(build):
        if build.object_id != WHOLE and slide.framing(build.object_id) is None:
            raise UnknownName(
                f"The build “{build.id}” takes the view to a framing that slide “{slide.name or slide.id}” "
                "does not have. Nothing was changed."
            )
        return
    found = slide.object(build.object_id)
    if found is None:
        raise UnknownName(
            f"The build “{build.id}” is of an object that is not on slide “{slide.name or slide.id}” any "
            f"more (“{build.object_id}”). Nothing was changed."
        )
    if build.effect == PLAYS and not isinstance(found, Clip):
        raise BadValue(f"“{found.name}” is no clip, so it cannot be played. Nothing was changed.", "build.effect")
    if build.part is not None:
        parts = {paragraph.id for paragraph in found.paragraphs} if isinstance(found, TextHolder) else set()
        if build.part not in parts:
            raise UnknownName(
                f"The build “{build.id}” is of a part that “{found.name}” does not have (“{build.part}”). "
                "Nothing was changed."
            )


def check_clip(clip: Clip) -> None:
    """Raises BadValue where the clip would end before it begins."""
    if clip.in_ms >= clip.out_ms:
        begins, ends = time_text(clip.in_ms), time_text(clip.out_ms)
        raise BadValue(
            f"The clip “{clip.name}” would end at {ends}, before it begins at {begins}. Nothing was changed.", "out_ms"
        )
    for before, after in itertools.pairwise((None, *clip.captions)):
        if after is not None and (
            after.start_ms >= after.end_ms or (before is not None and after.start_ms < before.end_ms)
        ):
            words = "ends before it begins, or begins before the one before it has ended"
            raise BadValue(
                f"The caption “{after.text[:40]}” of “{clip.name}” {words}. Nothing was changed.", "captions"
            )


def check_part(clip: Clip, asset: Asset) -> None:
    """Raises BadValue where the part of a clip that is shown is shorter than one picture of it."""
    if clip.in_ms < clip.out_ms < clip.in_ms + min(LEAST_PART_MS, asset.lasts_ms):
        raise BadValue(
            f"The clip “{clip.name}” would be shown for {clip.out_ms - clip.in_ms} ms, which is shorter than one "
            f"picture of it ({LEAST_PART_MS} ms). Nothing was changed.",
            "out_ms",
        )


def check_kind(item: Picture, asset: Asset, doing: str) -> None:
    """Raises BadValue where a picture shows an asset that is none, or a clip goes on past the end of its video."""
    if not isinstance(item, Clip):
        if asset.kind != "picture":
            raise BadValue(f"{doing} “{item.name}”: “{asset.name}” is no picture.", "asset_id")
        return
    if asset.kind != "clip":
        raise BadValue(f"{doing} “{item.name}”: “{asset.name}” is no clip.", "asset_id")
    if item.out_ms > asset.lasts_ms:
        raise BadValue(
            f"{doing} “{item.name}”: “{asset.name}” lasts {time_text(asset.lasts_ms)}; it cannot be "
            f"shown until {time_text(item.out_ms)}.",
            "out_ms",
        )


def check_slide(slide: Slide, field: str = "slide") -> None:
    """Raises where ids of objects, parts or builds repeat, or where a build has nothing to move."""
    everything = (*slide.objects, *(spare.object for spare in slide.spares))
    _unique((item.id for item in everything), "objects", f"{field}.objects")
    _unique((build.id for build in slide.order), "builds", f"{field}.order")
    for item in slide.objects:
        if isinstance(item, Clip):
            check_clip(item)
        if isinstance(item, TextHolder):
            _unique((paragraph.id for paragraph in item.paragraphs), "paragraphs", f"{field}.objects")
    _unique([WHOLE, *(framing.id for framing in slide.framings)], "framings", f"{field}.framings")
    if slide.opens_on is not None and slide.framing(slide.opens_on) is None:
        raise UnknownName(
            f"Slide “{slide.name or slide.id}” would open on a framing that it does not have "
            f"(“{slide.opens_on}”). Nothing was changed."
        )
    if slide.voice is not None and slide.voice.out_ms <= slide.voice.in_ms:
        begins, ends = time_text(slide.voice.in_ms), time_text(slide.voice.out_ms)
        words = f"would end at {ends}, before it begins at {begins}. Nothing was changed."
        raise BadValue(f"The voice of “{slide.name or slide.id}” {words}", f"{field}.voice.out_ms")
    for item in slide.objects:
        if isinstance(item.press, PlayClip) and not isinstance(slide.object(item.press.object_id), Clip):
            raise UnknownName(
                f"A press on “{item.name}” would play a clip that is not on its slide "
                f"(“{item.press.object_id}”). Nothing was changed."
            )
    for build in slide.order:
        check_build(slide, build)
    _unique(cue_ids(slide), "cues", f"{field}.order")


def check_ground(show: Show, ground: PictureBackground, doing: str) -> None:
    """Raises UnknownName where the asset of a background is not on the shelf, BadValue where it is of another kind."""
    wanted = "clip" if isinstance(ground, ClipBackground) else "picture"
    asset = show.asset(ground.asset_id)
    if asset is None:
        raise UnknownName(f"{doing}: the {wanted} for the background is not on the shelf.")
    if asset.kind != wanted:
        raise BadValue(f"{doing}: “{asset.name}” is no {wanted}, so it cannot be the background.", "background")


def check_press(item: Object, asset_ids: Collection[str], slide_ids: Collection[str]) -> None:
    """Raises UnknownName where a press on the object leads to something that is not in the show."""
    if isinstance(item.press, GoToSlide) and item.press.slide_id not in slide_ids:
        raise UnknownName(
            f"A press on “{item.name}” would go to a slide that is not in the show (“{item.press.slide_id}”)."
        )
    if isinstance(item.press, PlaySound) and item.press.asset_id not in asset_ids:
        raise UnknownName(
            f"A press on “{item.name}” would play a sound that is not on the shelf (“{item.press.asset_id}”)."
        )


def sounds_of(slide: Slide) -> list[SoundEffect]:
    """The sounds of the slide's transition and builds."""
    return [sound for sound in (slide.transition.sound, *(build.sound for build in slide.order)) if sound is not None]


def check_sounds(before: Show, after: Show) -> None:
    """Raises UnknownName where a changed slide names a sound that is not on the shelf, or an asset that is no sound."""
    known = {id(slide) for slide in before.slides}
    heard = {asset.id for asset in after.assets if asset.heard}
    for slide in after.slides:
        if id(slide) in known:
            continue
        for effect in sounds_of(slide):
            if effect.asset_id not in heard:
                raise UnknownName(
                    f"“{slide.name or slide.id}” would sound with “{effect.asset_id}”, which is no sound on the "
                    "shelf. Nothing was changed."
                )


def style_assets(show: Show) -> list[str]:
    """The ids of the assets that the show's theme and furniture use."""
    grounds = [
        ground.asset_id for ground in (show.theme.ground, show.theme.opening) if isinstance(ground, PictureBackground)
    ]
    return grounds + ([show.furniture.mark_asset_id] if show.furniture.mark_asset_id else [])


def cue_ids(slide: Slide) -> list[str]:
    """The ids of the slide's cues in order; the one that leaves the slide is the last."""
    return list(_cue_ids(Itself(slide)))


@lru_cache(maxsize=4000)
def _cue_ids(kept: Itself) -> tuple[str, ...]:
    slide = kept.value
    ids = [build.starts.cue_id for build in slide.order if isinstance(build.starts, OnCue)]
    if isinstance(slide.advance, AdvanceOnCue):
        ids.append(slide.advance.cue_id)
    return tuple(ids)


def check_ids(show: Show) -> None:
    """Raises BadValue where two slides share an id, or two cues anywhere in the show."""
    _unique((slide.id for slide in show.slides), "slides", "slides")
    _unique((cue for slide in show.slides for cue in cue_ids(slide)), "cues", "slides")


def check_integrity(show: Show) -> None:
    """Raises for the first thing in the show that names something which is not there, or that has the id of another."""
    check_ids(show)
    _unique((asset.id for asset in show.assets), "assets", "assets")
    _unique((span.id for span in show.music), "spans", "music")
    _unique((mark.id for mark in show.marks), "marks", "marks")
    by_id = {asset.id: asset for asset in show.assets}
    assets = set(by_id)
    slide_ids = {slide.id for slide in show.slides}
    for number, slide in enumerate(show.slides):
        check_slide(slide, f"slides[{number}]")
        layout_named(slide.layout)
        check_framings(slide, show.frame)
        for item in (*slide.objects, *(spare.object for spare in slide.spares)):
            if isinstance(item, Picture) and item.asset_id not in assets:
                raise UnknownName(
                    f"The picture “{item.name}” on slide {number + 1} wants “{item.asset_id}”, which is not on "
                    "the shelf."
                )
            if isinstance(item, Picture):
                check_kind(item, by_id[item.asset_id], f"Slide {number + 1},")
        for item in slide.objects:
            check_press(item, assets, slide_ids)
        if isinstance(slide.background, PictureBackground) and slide.background.asset_id not in assets:
            raise UnknownName(
                f"The background of slide {number + 1} wants “{slide.background.asset_id}”, which is not on the shelf."
            )
    for mark in show.marks:
        if mark.slide_id not in slide_ids:
            raise UnknownName(f"The mark “{mark.name}” stands on a slide that is not in the show (“{mark.slide_id}”).")
    for number, slide in enumerate(show.slides):
        if slide.voice is not None and slide.voice.asset_id not in assets:
            raise UnknownName(
                f"The voice of slide {number + 1} wants “{slide.voice.asset_id}”, which is not on the shelf."
            )
        for effect in sounds_of(slide):
            if effect.asset_id not in assets:
                raise UnknownName(
                    f"A sound of slide {number + 1} wants “{effect.asset_id}”, which is not on the shelf."
                )
    for asset_id in style_assets(show):
        if asset_id not in assets:
            raise UnknownName(f"The theme or the mark of “{show.title}” wants “{asset_id}”, which is not on the shelf.")
    for span in show.music:
        if span.asset_id not in assets:
            raise UnknownName(f"The music “{span.id}” wants “{span.asset_id}”, which is not on the shelf.")
