"""The captions of clips and of voices on the show's clock."""

from ritornel.core.document.objects import Caption, Clip
from ritornel.core.schedule.clips import clip_runs_ms
from ritornel.core.schedule.performance import Performance
from ritornel.core.schedule.slide_schedule import clip_of
from ritornel.core.time.milliseconds import round_half_up


def _rounds(clip: Clip, begins_ms: int, runs_ms: int) -> list[tuple[int, int]]:
    """The start and end of each pass of a clip."""
    pass_ms = max(clip.pass_ms, 1)
    return [(at, min(at + pass_ms, begins_ms + runs_ms)) for at in range(begins_ms, begins_ms + runs_ms, pass_ms)]


def compile_captions(performance: Performance) -> tuple[Caption, ...]:
    """The captions of the self-running show, by start.

    Where clips and a voice speak at once, the one that began later counts; no caption outlasts its clip or its slide. A
    caption at *t* of a clip that is shown from `in` at `rate` % stands (t - in) * 100 / rate after the clip begins.
    """
    found: list[Caption] = []
    for index, staged in enumerate(performance.slides):
        start = performance.schedule.starts_ms[index]
        for caption in performance.spoken[index] if performance.spoken else ():
            end = min(caption.end_ms, staged.schedule.length_ms)
            if caption.start_ms < end:
                found.append(Caption(start + caption.start_ms, start + end, caption.text))
        for build, time in zip(staged.slide.order, staged.schedule.builds, strict=True):
            clip = clip_of(staged.slide, build)
            if clip is None or not clip.captions:
                continue
            begins = start + staged.schedule.beats[time.beat].start_ms + time.offset_ms
            for first, last in _rounds(clip, begins, clip_runs_ms(clip, staged.schedule, time)):
                for caption in clip.captions:
                    one = first + round_half_up((max(caption.start_ms, clip.in_ms) - clip.in_ms) * 100 / clip.rate_pct)
                    other = min(
                        first + round_half_up((min(caption.end_ms, clip.out_ms) - clip.in_ms) * 100 / clip.rate_pct),
                        last,
                    )
                    if one < other:
                        found.append(Caption(one, other, caption.text))
    result: list[Caption] = []
    for caption in sorted(found, key=lambda caption: (caption.start_ms, caption.end_ms)):
        if result and caption.start_ms < result[-1].end_ms:
            if caption.start_ms == result[-1].start_ms:
                result.pop()
            else:
                result[-1] = Caption(result[-1].start_ms, caption.start_ms, result[-1].text)
        result.append(caption)
    return tuple(result)
