"""What an audience sees of a slide, measured in rendered frames: the contrast of text with what is really behind it,
and flashes.
"""

import os
from collections.abc import Iterator
from pathlib import Path

import msgspec
import numpy as np
from numpy.typing import NDArray

from ritornel.core.document.contrast import READABLE, luminance
from ritornel.core.document.decoding import from_json
from ritornel.core.document.objects import Clip, FreeText
from ritornel.core.document.show import Show
from ritornel.core.errors import RitornelError
from ritornel.core.layout.marks import ClipMark, ObjectDrawing, TextMark
from ritornel.core.motion.catalogue import EFFECTS
from ritornel.core.motion.channels import AWAY, STILL, Values
from ritornel.core.render.flashes import FlashMeter, luminance_of
from ritornel.core.render.painter import MediaPath, Painter
from ritornel.core.render.pictures import Pictures
from ritornel.core.render.sequence import FrameSequence
from ritornel.core.render.surfaces import surface_over
from ritornel.core.schedule.change_times import changing_spans
from ritornel.core.schedule.measurements import Flashes, FrameAnalysis, TextContrast
from ritornel.core.schedule.performance import (
    FrameState,
    Performance,
    StagedSlide,
    frame_state_at,
    frame_state_at_rest,
    perform,
)

LARGE_PX, BOLD_PX, BOLD = 24.0, 18.66, 600
LARGE_READABLE = 3.0
"""WCAG 2.2, 1.4.3: letters of 18 pt, or 14 pt in bold, may have three to one; px of a frame 1280 wide."""
WORST = 0.1
"""Words are judged by the tenth of what is behind them that they stand out from least: a single dark leaf spoils no
line.
"""
LOOK_PX, SMALL_PX = 480, 96
LARGEST_PX = 960
FRAMES_A_S, CALM_FRAMES_A_S = 25, 10
QUICK_MS, MOST_QUICK = 250, 3
"""What takes at least so long changes a place twice at most while it lasts: ten frames a second see both changes."""
LONGEST_S = 120
TOGETHER = 16
"""So many frames are measured at a time: their pixels stay near the processor, and the calls for them are few."""
INKS = ("#ffffff", "#16262e")


RGB = np.s_[..., 2::-1]
"""Of BGRA."""


class _Canvas:
    """Pixels to paint frame states into."""

    def __init__(self, performance: Performance, width: int, media: MediaPath, pictures: Pictures) -> None:
        height = max(round(width * performance.frame.height_px / performance.frame.width_px), 2)
        self._pixels = np.zeros((height, width, 4), dtype=np.uint8)
        painter = Painter(performance, width, height, media, pictures)
        self._sequence = FrameSequence(painter, surface_over(self._pixels))

    def pixels(self, frame_state: FrameState) -> NDArray[np.uint8]:
        """The frame state as BGRA, until the next is painted."""
        self._sequence.paint(frame_state)
        return self._pixels


def _hidden(frame_state: FrameState, object_ids: set[str]) -> FrameState:
    (layer,) = frame_state.layers
    objects = dict(layer.objects) | {(object_id, None): AWAY for object_id in object_ids}
    return FrameState((msgspec.structs.replace(layer, objects=tuple(objects.items())),), frame_state.blackness)


def _words(item: ObjectDrawing) -> list[TextMark]:
    return [
        mark
        for part in item.parts
        for mark in part.marks
        if isinstance(mark, TextMark) and mark.colour is not None and mark.text.strip()
    ]


def _behind(
    background: NDArray[np.uint8], item: ObjectDrawing, values: Values, marks: list[TextMark], scale: float
) -> NDArray[np.float32]:
    """The luminance behind the text, as a flat array."""
    found = []
    for mark in marks:
        left, top = item.x + values.x + mark.x, item.y + values.y + mark.baseline - 0.72 * mark.size_px
        rows = slice(max(int(top * scale), 0), max(int((top + 0.9 * mark.size_px) * scale) + 1, 0))
        columns = slice(max(int(left * scale), 0), max(int((left + mark.advance) * scale) + 1, 0))
        found.append(luminance_of(background[rows, columns]).ravel())
    return np.concatenate(found) if found else np.zeros(0, dtype=np.float32)


def _ratio(colour: str, behind: NDArray[np.float32]) -> float:
    """The contrast of a colour with the worst tenth of what is behind it."""
    own = luminance(colour[:7])
    ratios = (np.maximum(behind, own) + 0.05) / (np.minimum(behind, own) + 0.05)
    worst = int(WORST * (len(ratios) - 1))
    return float(np.partition(ratios, worst)[worst])


def contrasts_of(
    performance: Performance, index: int, media: MediaPath, pictures: Pictures
) -> tuple[TextContrast, ...]:
    """The texts of a slide with too little contrast, each at the end of the last beat in which it is visible.

    Turned, scaled, hollow and highlighted text is not judged.
    """
    staged = performance.slides[index]
    texts = {
        item.id
        for item in staged.slide.objects
        if isinstance(item, FreeText) and not item.highlight and not item.outline
    }
    drawn = {
        item.object_id: item
        for item in staged.drawing.objects
        if item.object_id in texts and not item.turn_deg and _words(item)
    }
    if not drawn:
        return ()
    canvas = _Canvas(performance, LOOK_PX, media, pictures)
    scale = LOOK_PX / performance.frame.width_px
    judged: set[str] = set()
    found = []
    for beat in reversed(range(len(staged.schedule.beats))):
        frame_state = frame_state_at_rest(performance, index, beat)
        if frame_state.layers[0].view != STILL:
            continue
        values = dict(frame_state.layers[0].objects)
        own = {object_id: values.get((object_id, None), STILL) for object_id in drawn if object_id not in judged}
        seen = {
            object_id: value
            for object_id, value in own.items()
            if value.shown and value.opacity > 0.9 and value.scale == 1 and value.tint == 0
        }
        if not seen:
            continue
        background = canvas.pixels(_hidden(frame_state, set(drawn)))[RGB]
        for object_id, value in seen.items():
            judged.add(object_id)
            found.extend(_judge_text(background, drawn[object_id], value, scale, performance.frame.width_px))
    return tuple(found)


def _judge_text(
    background: NDArray[np.uint8], item: ObjectDrawing, values: Values, scale: float, frame_px: int
) -> list[TextContrast]:
    marks = _words(item)
    behind = _behind(background, item, values, marks, scale)
    if not len(behind):
        return []
    size = min(mark.size_px for mark in marks) * 1280 / frame_px
    bold = all(mark.weight >= BOLD for mark in marks)
    needs = LARGE_READABLE if size >= LARGE_PX or (bold and size >= BOLD_PX) else READABLE
    by_mark = ((str(mark.colour), _behind(background, item, values, [mark], scale)) for mark in marks)
    ratio = min((_ratio(colour, own) for colour, own in by_mark if len(own)), default=needs)
    if ratio >= needs:
        return []
    better = max(INKS, key=lambda ink: _ratio(ink, behind))
    return [TextContrast(item.object_id, round(ratio, 2), needs, better if _ratio(better, behind) >= needs else None)]


def _frames_a_s(performance: Performance, index: int) -> int:
    """The sampling rate: every frame of a film for slides with clips, accents or several quick changes; else ten times
    a second.
    """
    for staged in performance.slides[max(index - 1, 0) : index + 1]:
        slide = staged.slide
        moving = any(isinstance(mark, ClipMark) for mark in staged.drawing.ground) or any(
            isinstance(item, Clip) for item in slide.objects
        )
        quick = sum(build.lasts_ms < QUICK_MS for build in slide.order) + (0 < slide.transition.lasts_ms < QUICK_MS)
        if moving or quick >= MOST_QUICK or any(EFFECTS[build.effect].kind == "accents" for build in slide.order):
            return FRAMES_A_S
    return CALM_FRAMES_A_S


def flashes_of(performance: Performance, index: int, media: MediaPath, pictures: Pictures) -> Flashes:
    """The worst second of a slide with the transition into it, on the slide's clock. A still span is drawn once."""
    canvas = _Canvas(performance, SMALL_PX, media, pictures)
    start, length = performance.schedule.starts_ms[index], performance.slides[index].schedule.length_ms
    meter, rate = FlashMeter(), _frames_a_s(performance, index)
    before: FrameState | None = None
    seen: list[NDArray[np.uint8]] = []
    times: list[float] = []
    for number in _frames_that_change(performance.slides[index], rate, min(length, LONGEST_S * 1000) * rate // 1000):
        at_ms = 1000 * number / rate
        frame_state = frame_state_at(performance, start + at_ms, first_pass=False)
        if frame_state != before:
            seen.append(canvas.pixels(frame_state).copy())
            times.append(at_ms)
        before = frame_state
        if len(seen) == TOGETHER:
            meter.take_all(np.stack(seen)[RGB], times)
            seen, times = [], []
    if seen:
        meter.take_all(np.stack(seen)[RGB], times)
    return meter.worst()


def _frames_that_change(staged: StagedSlide, rate: int, count: int) -> Iterator[int]:
    """Those of the slide's first `count` frames that may differ from the one before; it may contain some more."""
    following = 0
    for span in changing_spans(staged):
        # The first frame after a span shows what stays.
        for number in range(
            max(-(-span.start_ms * rate // 1000), following), min(-(-span.end_ms * rate // 1000) + 1, count)
        ):
            yield number
            following = number + 1


def analyse_slide(show: Show, slide_id: str, media: MediaPath, pictures: Pictures | None = None) -> FrameAnalysis:
    """The analysis of a slide; `pictures` holds pictures decoded for other slides."""
    pictures = pictures or Pictures(media, LARGEST_PX)
    shown = show.shown
    at = next(number for number, slide in enumerate(shown) if slide.id == slide_id)
    # Only the slide and the one it comes from are performed: an edit elsewhere changes nothing of what is seen here.
    near = tuple(shown[max(at - 1, 0) : at + 1])
    performance = perform(
        msgspec.structs.replace(show, slides=near, music=(), marks=(), end="hold"), first_number=max(at, 1)
    )
    index = len(near) - 1
    return FrameAnalysis(
        contrasts_of(performance, index, media, pictures), flashes_of(performance, index, media, pictures)
    )


def write_analyses(document: bytes, wanted: list[tuple[str, Path]], media: dict[str, Path]) -> None:
    """Analyses slides of the show with this JSON, and writes the result of each to its file, in order; for a slide that
    cannot be drawn the result is empty.
    """
    show = from_json(document, Show, "The show")
    pictures = Pictures(media.__getitem__, LARGEST_PX)
    for slide_id, target in wanted:
        try:
            look = analyse_slide(show, slide_id, media.__getitem__, pictures)
        except (RitornelError, KeyError, OSError):
            look = FrameAnalysis()
        # Two who look at the same slide at the same time each write a file of their own.
        part = target.with_name(f".unfinished-{os.getpid()}-{target.name}")
        part.write_bytes(msgspec.json.encode(look))
        part.replace(target)
