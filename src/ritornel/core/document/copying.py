"""Copies with ids of their own, which remember what they stem from."""

import msgspec

from ritornel.core.document.framings import WHOLE, moves_view
from ritornel.core.document.objects import Object, PlayClip, PressAction
from ritornel.core.document.show import AdvanceOnCue, Build, OnCue, Slide, Together


def copy_of_slide(slide: Slide, stem: str) -> Slide:
    """The slide again, every id new and beginning with `stem`; objects share the lineage of their originals."""
    replace = msgspec.structs.replace
    names = {item.id: f"{stem}-o{number}" for number, item in enumerate(slide.objects)}
    views = {framing.id: f"{stem}-f{number}" for number, framing in enumerate(slide.framings)}
    objects = tuple(replace(item, id=names[item.id], lineage=item.lineage or item.id) for item in slide.objects)
    order = []
    cues: dict[str, str] = {}
    for number, build in enumerate(slide.order):
        starts = replace(build.starts, cue_id=f"{stem}-c{number}") if isinstance(build.starts, OnCue) else build.starts
        target = views.get(build.object_id, WHOLE) if moves_view(build) else names[build.object_id]
        if isinstance(build.starts, OnCue):
            cues[build.starts.cue_id] = f"{stem}-c{number}"
        order.append(replace(build, id=f"{stem}-b{number}", object_id=target, starts=starts))
    advance = replace(slide.advance, cue_id=f"{stem}-out") if isinstance(slide.advance, AdvanceOnCue) else slide.advance
    groups = {item.group: f"{stem}-g{number}" for number, item in enumerate(slide.objects) if item.group}
    objects = tuple(replace(item, group=groups.get(item.group, ""), press=_press(item, names)) for item in objects)
    if isinstance(slide.advance, AdvanceOnCue):
        cues[slide.advance.cue_id] = f"{stem}-out"
    voice = (
        replace(slide.voice, marks={cues[cue]: ms for cue, ms in slide.voice.marks.items() if cue in cues})
        if slide.voice
        else None
    )
    framings = tuple(replace(framing, id=views[framing.id]) for framing in slide.framings)
    opens_on = views[slide.opens_on] if slide.opens_on is not None else None
    return replace(
        slide,
        id=f"{stem}-s",
        lineage=slide.lineage or slide.id,
        objects=objects,
        order=tuple(order),
        advance=advance,
        framings=framings,
        opens_on=opens_on,
        voice=voice,
        opens_section="",
    )


def _press(item: Object, names: dict[str, str]) -> PressAction | None:
    """What a press on a copy does: it plays the copy of a clip, not the clip."""
    return PlayClip(names[item.press.object_id]) if isinstance(item.press, PlayClip) else item.press


def builds_for(order: tuple[Build, ...], source_id: str, object_ids: list[str], stem: str) -> tuple[Build, ...]:
    """The running order with each build of `source_id` given to other objects too, right behind it.

    A build of the whole on cue or following is joined *together*, so that no wait is added; parts are not copied, since
    other texts have others.
    """
    result: list[Build] = []
    number = 0
    for build in order:
        result.append(build)
        if build.object_id != source_id or build.part is not None:
            continue
        for object_id in object_ids:
            result.append(msgspec.structs.replace(build, id=f"{stem}-{number}", object_id=object_id, starts=Together()))
            number += 1
    return tuple(result)
