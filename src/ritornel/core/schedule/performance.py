"""A show ready to be performed: schedule, drawings, tracks and music in one frozen value, and the frame state at any
instant.
"""

import math
from collections.abc import Callable, Mapping
from itertools import repeat
from typing import Any

import msgspec

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.objects import Caption, Clip, PlayClip, PlaySound
from ritornel.core.document.show import Asset, Frame, Show, Slide
from ritornel.core.layout.drawing import Scenery, draw_slide, scenery_of
from ritornel.core.layout.marks import ClipMark, ImageMark, SlideDrawing
from ritornel.core.motion.channels import STILL, Values, combine
from ritornel.core.motion.easing import EVEN
from ritornel.core.motion.sampling import value_at, values_at
from ritornel.core.motion.transition import Moved
from ritornel.core.schedule.carries import Ended, compile_carry
from ritornel.core.schedule.clips import compile_clips
from ritornel.core.schedule.growing_list import with_growth
from ritornel.core.schedule.music import LostSpan, compile_music
from ritornel.core.schedule.show_schedule import BLACK_MS, ShowSchedule, compile_show, moment_at, slide_moment
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.schedule.sound_effects import compile_effects
from ritornel.core.schedule.spoken_notes import spoken_captions
from ritornel.core.schedule.tracks import (
    SlideTracks,
    compile_tracks,
    instant_at,
    layer_values,
    object_values,
    with_extras,
)
from ritornel.core.schedule.voices import compile_voices
from ritornel.core.schedule.words import words_of_beats
from ritornel.core.sound.events import SoundTime
from ritornel.core.sound.passes import MusicTime
from ritornel.core.sound.tempo import asset_and_rate, sound_key


class StagedSlide(msgspec.Struct, frozen=True):
    """A shown slide with everything painters need of it."""

    slide: Slide
    schedule: SlideSchedule
    drawing: SlideDrawing
    tracks: SlideTracks


class Performance(msgspec.Struct, frozen=True, kw_only=True):
    """A show ready to be performed."""

    title: str
    frame: Frame
    schedule: ShowSchedule
    slides: tuple[StagedSlide, ...]
    music: tuple[MusicTime, ...]
    lost_spans: tuple[LostSpan, ...]
    assets: dict[str, Asset]
    voices: tuple[SoundTime, ...] = ()
    voices_live: bool = False
    effects: tuple[SoundTime, ...] = ()
    clips: tuple[SoundTime, ...] = ()
    spoken: tuple[tuple[Caption, ...], ...] = ()
    language: str = "en"

    @property
    def events(self) -> tuple[SoundTime, ...]:
        """All sounds that begin at an instant."""
        return self.voices + self.effects + self.clips

    def sound_ids(self) -> list[str]:
        """The keys of all sounds that are heard (core/sound/tempo.py)."""
        return sorted({span.asset_id for span in self.music} | {event.asset_id for event in self.events})

    def media_keys(self) -> list[str]:
        """The keys of all media that are shown or heard: assets by id, sounds at other speeds by key
        (core/sound/tempo.py).

        An asset that no shown slide and no music uses is left out.
        """
        keys = {*self.sound_ids()}
        for staged in self.slides:
            keys |= {mark.asset_id for mark in staged.drawing.marks() if isinstance(mark, ImageMark)}
            keys |= {sound_key(clip.asset_id, clip.rate_pct) for clip in pressed_clips(staged.slide) if not clip.muted}
            keys |= {item.press.asset_id for item in staged.slide.objects if isinstance(item.press, PlaySound)}
        return sorted(key for key in keys if asset_and_rate(key)[0] in self.assets)

    def media(self, address: Callable[[Asset, int], str]) -> dict[str, str]:
        """The address of each medium that is shown or heard, by its media key; `address` gives it for an asset at a
        speed in per cent.
        """
        keys = {key: asset_and_rate(key) for key in self.media_keys()}
        return {key: address(self.assets[asset_id], rate_pct) for key, (asset_id, rate_pct) in keys.items()}


class Layer(msgspec.Struct, frozen=True):
    """A visible slide: the values of its objects and parts that are not still, of the slide as a whole, the opacity of
    its ground, the view over it, and the position of a clip that is its background, as a share of its length (None: it
    has none).
    """

    index: int
    objects: tuple[tuple[tuple[str, str | None], Values], ...]
    values: Values = STILL
    ground: float = 1.0
    view: Values = STILL
    ground_played: float | None = None


class FrameState(msgspec.Struct, frozen=True):
    """What is visible at an instant: layers from the back over black, and how black all of it has become (0..1)."""

    layers: tuple[Layer, ...]
    blackness: float = 0.0


def stage_slide(slide: Slide, schedule: SlideSchedule, scenery: Scenery, number: int = 1) -> StagedSlide:
    """The slide's drawing and tracks; `number` is the slide number in its furniture.

    Raises UnknownName or BadValue for an unknown effect, font, layout or transition.
    """
    drawing = with_extras(draw_slide(slide, scenery, number), slide, scenery.theme)
    tracks = with_growth(compile_tracks(slide, schedule, scenery.frame, scenery.theme), drawing, slide, schedule)
    return StagedSlide(slide, schedule, drawing, tracks)


def _add_carry(before: StagedSlide, slide: StagedSlide, frame: Frame) -> StagedSlide:
    """The slide with its carry from the slide before."""
    old, new = (
        Ended(staged.slide, staged.drawing, staged.schedule, staged.tracks, frame) for staged in (before, slide)
    )
    return msgspec.structs.replace(slide, tracks=msgspec.structs.replace(slide.tracks, layers=compile_carry(old, new)))


def perform(show: Show, first_number: int = 1) -> Performance:
    """The performance of the whole show; its first slide has the number `first_number`.

    Raises RitornelError for the first thing in it that cannot be performed.
    """
    schedule = compile_show(show)
    scenery = scenery_of(show)
    shown = show.shown
    slides = tuple(
        stage_slide(slide, times, scenery, n)
        for n, (slide, times) in enumerate(zip(shown, schedule.slides, strict=True), first_number)
    )
    slides = tuple(
        _add_carry(slides[at - 1], slide, show.frame) if slide.tracks.layers.carries and len(slides) > 1 else slide
        for at, slide in enumerate(slides)
    )
    voices = compile_voices(show, schedule)
    clips = compile_clips(show, schedule)
    music, lost = compile_music(show, schedule, voices + clips)
    effects = compile_effects(show, schedule, music)
    return Performance(
        title=show.title,
        frame=show.frame,
        schedule=schedule,
        slides=slides,
        music=music,
        lost_spans=lost,
        assets=dict(scenery.assets),
        voices=voices,
        voices_live=show.voices_live,
        effects=effects,
        clips=clips,
        spoken=tuple(map(spoken_captions, shown)) if show.notes_as_captions else (),
        language=show.language,
    )


def _layer(
    performance: Performance, index: int, slide_ms: float, beat: int, since_ms: float, values: Values = STILL
) -> Layer:
    staged = performance.slides[index]
    at = instant_at(staged.schedule, slide_ms, beat, since_ms)
    view = values_at(staged.tracks.view, at) if staged.tracks.view else STILL
    return Layer(
        index,
        tuple(object_values(staged.tracks, at).items()),
        values,
        view=view,
        ground_played=ground_played(staged.drawing, slide_ms),
    )


def ground_played(drawing: SlideDrawing, slide_ms: float) -> float | None:
    """The position of the clip that is a slide's background, 0..1 of its length; None where the background
    is no clip.
    """
    for mark in drawing.ground:
        if isinstance(mark, ClipMark):
            pass_ms = mark.out_ms - mark.in_ms
            return math.fmod(max(slide_ms, 0.0), pass_ms) / pass_ms
    return None


def move_layer(layer: Layer, moved: tuple[Moved, ...], progress: float, ground: float = 1.0) -> Layer:
    """The layer with the effect of a carry added to its objects' own values."""
    if not moved and ground >= 1:
        return layer
    objects = dict(layer.objects)
    for entry in moved:
        own = objects.get((entry.object_id, None), STILL)
        objects[entry.object_id, None] = combine(own, layer_values(entry.ramps, progress))
    return msgspec.structs.replace(layer, objects=tuple(objects.items()), ground=ground)


def last_layer(performance: Performance, index: int, values: Values = STILL) -> Layer:
    """A slide as it is at its last instant."""
    schedule = performance.slides[index].schedule
    beat, since_ms, _ = slide_moment(schedule, schedule.length_ms)
    return _layer(performance, index, schedule.length_ms, beat, since_ms, values)


def frame_state_at(performance: Performance, time_ms: float, first_pass: bool = True) -> FrameState:
    """The frame state of the self-running show.

    The first slide comes out of black in the first pass, out of the last slide in later ones.
    """
    moment = moment_at(performance.schedule, time_ms)
    if moment.index < 0:
        return FrameState(())
    staged = performance.slides[moment.index]
    if moment.phase in ("to black", "over"):
        blackness = 0.0
        if performance.schedule.end == "black":
            blackness = min(1.0, (time_ms - performance.schedule.content_ms) / BLACK_MS)
        return FrameState((last_layer(performance, moment.index),), blackness)
    if moment.phase == "transition":
        progress = moment.slide_ms / staged.schedule.transition_ms
        layers = staged.tracks.layers
        new = _layer(
            performance, moment.index, moment.slide_ms, moment.beat, moment.since_ms, layer_values(layers.new, progress)
        )
        if moment.index == 0 and first_pass:
            return FrameState((new,))
        new = move_layer(
            new, layers.new_objects, progress, value_at(layers.new_ground, EVEN, progress) if layers.new_ground else 1.0
        )
        before = (moment.index - 1) % len(performance.slides)
        old = move_layer(
            last_layer(performance, before, layer_values(layers.old, progress)), layers.old_objects, progress
        )
        return FrameState((new, old) if layers.old_on_top else (old, new))
    return FrameState((_layer(performance, moment.index, moment.slide_ms, moment.beat, moment.since_ms),))


def frame_state_at_rest(performance: Performance, index: int, beat: int) -> FrameState:
    """Shown slide number `index` when a beat is complete."""
    schedule = performance.slides[index].schedule
    return FrameState((_layer(performance, index, schedule.beats[beat].end_ms, beat, float("inf")),))


def builtins_of(performance: Performance, media: Mapping[str, str]) -> dict[str, Any]:
    """The performance for the browser's painter. `media` gives each asset's address by its id."""
    schedule = performance.schedule
    return {
        "title": performance.title,
        "frame": to_builtins(performance.frame),
        "end": schedule.end,
        "starts_ms": schedule.starts_ms,
        "content_ms": schedule.content_ms,
        "length_ms": schedule.length_ms,
        "language": performance.language,
        "slides": [
            {**staged_builtins(staged), **({"spoken": to_builtins(spoken)} if spoken else {})}
            for staged, spoken in zip(performance.slides, performance.spoken or repeat(()), strict=False)
        ],
        "music": to_builtins(performance.music),
        "voices": to_builtins(performance.voices),
        "voices_live": performance.voices_live,
        "effects": to_builtins(performance.effects + performance.clips),
        "media": dict(media),
    }


def staged_builtins(staged: StagedSlide) -> dict[str, Any]:
    """One slide for the browser's painter."""
    advance = to_builtins(staged.slide.advance)
    return {
        "id": staged.slide.id,
        "name": staged.slide.name,
        "notes": staged.slide.notes,
        "advance": advance,
        "schedule": to_builtins(staged.schedule),
        "drawing": to_builtins(staged.drawing),
        "motions": to_builtins(staged.tracks.motions),
        "layers": to_builtins(staged.tracks.layers),
        "view": to_builtins(staged.tracks.view),
        "beat_words": words_of_beats(staged.slide, staged.schedule),
        "clips": {item.id: to_builtins(_pressed_clip(item)) for item in pressed_clips(staged.slide)},
        "presses": {item.id: to_builtins(item.press) for item in staged.slide.objects if item.press},
    }


class PressedClip(msgspec.Struct, frozen=True, kw_only=True):
    """A clip that a press plays: its medium and part, its speed and its level."""

    id: str
    asset_id: str
    in_ms: int
    out_ms: int
    rate_pct: int
    muted: bool
    gain_db: float
    fade_in_ms: int
    fade_out_ms: int
    repeats: bool


def _pressed_clip(clip: Clip) -> PressedClip:
    return PressedClip(**{name: getattr(clip, name) for name in PressedClip.__struct_fields__})


def pressed_clips(slide: Slide) -> list[Clip]:
    """The clips of the slide that a press plays."""
    wanted = {item.press.object_id for item in slide.objects if isinstance(item.press, PlayClip)}
    return [item for item in slide.objects if isinstance(item, Clip) and item.id in wanted]
