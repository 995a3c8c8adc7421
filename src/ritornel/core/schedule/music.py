"""Spans of music on the show's clock."""

import msgspec

from ritornel.core.document.show import MusicSpan, OwnLength, Show, SlideEnd, SlideStart
from ritornel.core.schedule.show_schedule import ShowSchedule
from ritornel.core.sound.ducking import duck_points
from ritornel.core.sound.events import SoundTime
from ritornel.core.sound.passes import MusicTime, passes_of, shrink_fades
from ritornel.core.time.spans import Span


class LostSpan(msgspec.Struct, frozen=True):
    """A span that is never heard: no slide of it is left, or its offset lies behind the end of its stretch."""

    span_id: str
    late: bool = False


class _Edges(msgspec.Struct, frozen=True):
    start_ms: int
    end_ms: int
    first: int
    last: int
    offset_ms: int


def _edges(span: MusicSpan, show: Show, schedule: ShowSchedule) -> _Edges | None:
    """The start and end of the span; None where no slide of its stretch is shown.

    Skipped slides have no time: the next shown one counts.
    """
    place = {slide.id: index for index, slide in enumerate(show.slides)}
    shown = {slide.slide_id: index for index, slide in enumerate(schedule.slides)}
    start = span.start.slide_id if isinstance(span.start, SlideStart) else show.slides[0].id
    end = span.end.slide_id if isinstance(span.end, SlideEnd) else show.slides[-1].id
    if start not in place or end not in place:
        return None
    # An end before its start: the span ends with its first slide.
    stretch = [slide.id for slide in show.slides[place[start] : max(place[end], place[start]) + 1] if slide.id in shown]
    if not stretch:
        return None
    first, last = shown[stretch[0]], shown[stretch[-1]]
    offset_ms = span.start.offset_ms if isinstance(span.start, SlideStart) and stretch[0] == start else 0
    end_ms = schedule.span_of(last).end_ms if isinstance(span.end, SlideEnd) else schedule.length_ms
    return _Edges(schedule.starts_ms[first] + offset_ms, end_ms, first, last, offset_ms)


def compile_music(
    show: Show, schedule: ShowSchedule, voices: tuple[SoundTime, ...] = ()
) -> tuple[tuple[MusicTime, ...], tuple[LostSpan, ...]]:
    """All spans on the show's clock, with their ducking under voices, and those that are never heard."""
    speaking = [Span(voice.start_ms, voice.end_ms) for voice in voices]
    placed: list[MusicTime] = []
    lost: list[LostSpan] = []
    for span in show.music:
        edges = _edges(span, show, schedule) if schedule.slides else None
        asset = show.asset(span.asset_id)
        if edges is None or asset is None:
            lost.append(LostSpan(span.id))
            continue
        start_ms, end_ms = edges.start_ms, edges.end_ms
        once = isinstance(span.end, OwnLength)
        if once or not span.loops:
            end_ms = min(end_ms, start_ms + asset.lasts_ms)
        if start_ms >= end_ms:
            lost.append(LostSpan(span.id, late=True))
            continue
        fade_in_ms, fade_out_ms = shrink_fades(span.fade_in_ms, span.fade_out_ms, end_ms - start_ms)
        loops = span.loops and not once
        whole = loops and start_ms == 0 and end_ms == schedule.length_ms
        crossfade_ms = min(span.crossfade_ms, asset.lasts_ms // 2)
        placed.append(
            MusicTime(
                span_id=span.id,
                asset_id=span.asset_id,
                start_ms=start_ms,
                end_ms=end_ms,
                gain_db=span.gain_db,
                fade_in_ms=fade_in_ms,
                fade_out_ms=fade_out_ms,
                passes=passes_of(start_ms, end_ms, asset.lasts_ms, crossfade_ms, loops),
                first=edges.first,
                last=edges.last,
                offset_ms=edges.offset_ms,
                lasts_ms=asset.lasts_ms,
                period_ms=asset.lasts_ms - crossfade_ms if loops else 0,
                runs_on=whole and show.end == "loop",
                ducking=duck_points(speaking, start_ms, end_ms, span.duck_db) if span.ducks else (),
                duck_db=span.duck_db if span.ducks else 0.0,
            )
        )
    return tuple(placed), tuple(lost)
