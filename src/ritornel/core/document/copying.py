"""Copies with ids of their own that keep the lineage of their originals."""

from collections.abc import Mapping

import msgspec

from ritornel.core.document.framings import WHOLE, moves_view
from ritornel.core.document.objects import Object, PlayClip, PressAction, TextHolder
from ritornel.core.document.show import AdvanceOnCue, Build, OnCue, Slide, Together


def copy_of_slide(slide: Slide, stem: str) -> Slide:
    """A copy of the slide. Every id is new and begins with `stem`; objects keep the lineage of their originals. Spares
    are not copied.
    """
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
        spares=(),
    )


def _press(item: Object, names: dict[str, str]) -> PressAction | None:
    """The press of a copy: it plays the copy of a clip, not the original."""
    return PlayClip(names[item.press.object_id]) if isinstance(item.press, PlayClip) else item.press


def builds_of_copies(
    order: tuple[Build, ...], copies: Mapping[str, Object], originals: Mapping[str, Object], stem: str
) -> tuple[Build, ...]:
    """The running order with the builds of objects repeated for their copies: `copies` and `originals` by the
    original's id. Each new build stands behind its original and starts together with it. Parts are those of the copy.
    """
    result: list[Build] = []
    for number, build in enumerate(order):
        result.append(build)
        copy = copies.get(build.object_id)
        if copy is None or moves_view(build):
            continue
        part = build.part
        if part is not None:
            part = _same_part(originals[build.object_id], copy, part)
            if part is None:
                continue
        starts = Together()
        result.append(
            msgspec.structs.replace(build, id=f"{stem}-{number}", object_id=copy.id, part=part, starts=starts)
        )
    return tuple(result)


def _same_part(original: Object, copy: Object, part: str) -> str | None:
    """The paragraph of a copy at the same place as `part` in the original."""
    if not (isinstance(original, TextHolder) and isinstance(copy, TextHolder)):
        return None
    at = next((at for at, paragraph in enumerate(original.paragraphs) if paragraph.id == part), len(copy.paragraphs))
    return copy.paragraphs[at].id if at < len(copy.paragraphs) else None


def builds_for(order: tuple[Build, ...], source_id: str, object_ids: list[str], stem: str) -> tuple[Build, ...]:
    """The running order with each build of `source_id` given to other objects too, each right behind the original.

    A build of the whole object on cue or following becomes *together*, so that no wait is added. Builds of parts are
    not copied, since other texts have other parts.
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
