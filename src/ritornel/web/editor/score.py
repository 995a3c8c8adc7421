"""The score as data: what the page draws and edits, one line a slide."""

import hashlib
from typing import Any

from django.urls import reverse

from ritornel.core.document.decoding import to_builtins, to_json
from ritornel.core.document.edits.draft import target_of
from ritornel.core.document.layouts import theme_slide
from ritornel.core.document.naming import first_words
from ritornel.core.document.objects import PLAYS, Clip, TextHolder
from ritornel.core.document.running_order import clusters
from ritornel.core.document.show import RUNS, Show, Slide
from ritornel.core.document.themes import weak_contrasts
from ritornel.core.document.uses import uses_changed, uses_of
from ritornel.core.layout.drawing import scenery_of
from ritornel.core.motion.catalogue import EFFECTS
from ritornel.core.motion.habits import usual_build
from ritornel.core.render.version import RENDERER
from ritornel.core.schedule.clips import clip_runs_ms, compile_clips
from ritornel.core.schedule.music import compile_music
from ritornel.core.schedule.performance import stage_slide, staged_builtins
from ritornel.core.schedule.reading import reading_ms
from ritornel.core.schedule.show_schedule import ShowSchedule, compile_show
from ritornel.core.schedule.slide_schedule import SlideSchedule, compile_slide
from ritornel.core.schedule.voices import compile_voices
from ritornel.web.editor.stage_data import composing
from ritornel.web.library.services import shelf_line


def style_stamp(show: Show) -> bytes:
    """A stamp of everything that all thumbnails of a show depend on."""
    return to_json((show.frame, show.theme, show.furniture))


def thumb_address(show: Show, slide: Slide, style: bytes, number: int) -> str:
    """The address of the slide's thumbnail; it changes with the picture, so browsers may keep it for ever."""
    number = number if show.furniture.numbers else 0
    seen = to_json(
        (
            RENDERER,
            slide.background,
            slide.layout,
            slide.bare,
            slide.objects,
            slide.order,
            slide.size,
            slide.framings,
            slide.opens_on,
            number,
        )
    )
    stamp = hashlib.sha256(style + seen).hexdigest()[:16]
    return reverse("thumb", args=[show.id, slide.id, stamp])


_SLIDE_FIELDS = (
    "name",
    "opens_section",
    "given_to",
    "skipped",
    "transition",
    "advance",
    "voice",
    "notes",
    "layout",
    "bare",
    "lineage",
)
"""What the score shows of a slide as it is."""


def slide_line(show: Show, slide: Slide, schedule: SlideSchedule, style: bytes, number: int) -> dict[str, Any]:
    """The score's line of one slide: its schedule, and its builds with their words. Structs stay as they are: of 500
    slides turning them into dicts took a tenth of a second.
    """
    builds = []
    places = clusters(slide.order)
    items = {item.id: item for item in slide.objects}
    for build, time, (_, cluster) in zip(slide.order, schedule.builds, places, strict=True):
        item = items.get(build.object_id)
        name = item.name if item else target_of(slide, build)
        if build.part is not None and isinstance(item, TextHolder):
            nth, text = next((n, p.text) for n, p in enumerate(item.paragraphs, 1) if p.id == build.part)
            name = f"“{first_words(text)}”" if text.strip() else f"{name} {nth}"
        effect = EFFECTS[build.effect]
        clip = item if build.effect == PLAYS and isinstance(item, Clip) else None
        builds.append(
            {
                "id": build.id,
                "object_id": build.object_id,
                "part": build.part,
                "name": name,
                "kind": effect.kind,
                "effect": build.effect,
                "title": effect.title,
                "starts": build.starts,
                "after_ms": build.after_ms,
                "lasts_ms": build.lasts_ms,
                "pace": build.pace,
                "repeats": build.repeats,
                "settings": build.settings,
                "sound": build.sound,
                "beat": time.beat,
                "cluster": cluster,
                "offset_ms": time.offset_ms,
                "runs_ms": clip_runs_ms(clip, schedule, time) if clip else time.lasts_ms,
                "clip": {
                    "asset_id": clip.asset_id,
                    "in_ms": clip.in_ms,
                    "out_ms": clip.out_ms,
                    "rate_pct": clip.rate_pct,
                }
                if clip
                else None,
            }
        )
    return {
        "id": slide.id,
        **{name: getattr(slide, name) for name in _SLIDE_FIELDS},
        "carrying": [slide.links, slide.unlinks],
        "objects": len(slide.objects),
        "builds": builds,
        "schedule": schedule,
        "reading_ms": reading_ms(slide),
        "thumb": thumb_address(show, slide, style, number),
    }


def slide_detail(show: Show, slide: Slide) -> dict[str, Any]:
    """Everything that the stage needs of the slide being composed."""
    schedule = compile_slide(slide, show.default_hold_ms, show.holds_by_cue, show.frame)
    staged = stage_slide(slide, schedule, scenery_of(show), show.numbers[slide.id])
    return {"slide": to_builtins(slide), "staged": staged_builtins(staged), **composing(show, slide, staged)}


def settings_line(show: Show) -> dict[str, Any]:
    """The show's own settings."""
    return {
        "title": show.title,
        "default_hold_ms": show.default_hold_ms,
        "end": show.end,
        "runs": show.runs,
        "runs_titles": {value: title for value, (title, _) in RUNS.items()},
        "voices_live": show.voices_live,
        "language": show.language,
        "notes_as_captions": show.notes_as_captions,
        "follows_take": show.follows_take,
        "frame": to_builtins(show.frame),
        "theme": to_builtins(show.theme),
        "weak": weak_contrasts(show.theme),
        "theme_slide": theme_slide(show),
        "furniture": to_builtins(show.furniture),
        "habits": to_builtins(show.habits),
        "usual": {effect.name: to_builtins(usual_build(effect, show.habits)) for effect in EFFECTS.values()},
    }


def times_line(show: Show, schedule: ShowSchedule) -> dict[str, Any]:
    """The times of all slides, and the music."""
    voices = compile_voices(show, schedule)
    music, lost = compile_music(show, schedule, voices + compile_clips(show, schedule))
    starts = dict(zip((slide.slide_id for slide in schedule.slides), schedule.starts_ms, strict=True))
    return {
        "order": [slide.id for slide in show.slides],
        "numbers": show.numbers,
        "cued": [slide.slide_id for index, slide in enumerate(schedule.slides) if schedule.leaves_on_cue(index)],
        "starts_ms": starts,
        "content_ms": schedule.content_ms,
        "length_ms": schedule.length_ms,
        "music": to_builtins(music),
        "spans": to_builtins(show.music),
        "marks": to_builtins(show.marks),
        "voices": to_builtins(voices),
        "lost_spans": [span.span_id for span in lost],
    }


def _schedules(show: Show, schedule: ShowSchedule) -> dict[str, SlideSchedule]:
    found = {slide.slide_id: slide for slide in schedule.slides}
    for slide in show.slides:
        if slide.skipped:
            found[slide.id] = compile_slide(slide, show.default_hold_ms, show.holds_by_cue, show.frame)
    return found


def whole_score(show: Show) -> dict[str, Any]:
    """The whole score, for when it is opened."""
    schedule = compile_show(show)
    schedules = _schedules(show, schedule)
    style, numbers = style_stamp(show), show.numbers
    return {
        "settings": settings_line(show),
        **times_line(show, schedule),
        "slides": {
            slide.id: slide_line(show, slide, schedules[slide.id], style, numbers[slide.id]) for slide in show.slides
        },
        "assets": [shelf_line(show, asset) for asset in show.assets],
        "uses": uses_of(show),
    }


def changed_score(before: Show, after: Show) -> dict[str, Any]:
    """The difference between two states of a show, in the form the page needs."""
    known = {id(slide) for slide in before.slides}
    schedule = compile_show(after)
    schedules = _schedules(after, schedule)
    style, numbers = style_stamp(after), after.numbers
    fresh = (
        before.default_hold_ms != after.default_hold_ms
        or before.holds_by_cue != after.holds_by_cue
        or style_stamp(before) != style
    )
    fresh = fresh or (after.furniture.numbers and before.numbers != numbers)
    lines = {
        slide.id: slide_line(after, slide, schedules[slide.id], style, numbers[slide.id])
        for slide in after.slides
        if fresh or id(slide) not in known
    }
    reply = {"settings": settings_line(after), **times_line(after, schedule), "slides": lines}
    if before.assets != after.assets:
        reply["assets"] = [shelf_line(after, asset) for asset in after.assets]
    if uses_changed(before, after):
        reply["uses"] = uses_of(after)
    return reply
