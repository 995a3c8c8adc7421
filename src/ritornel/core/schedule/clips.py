"""The sound of clips on the show's clock (domain rule 4)."""

from functools import lru_cache

from ritornel.core.document.identity import Itself
from ritornel.core.document.objects import Clip, played_ms
from ritornel.core.document.show import Show, Slide
from ritornel.core.schedule.show_schedule import ShowSchedule
from ritornel.core.schedule.slide_schedule import BuildTime, SlideSchedule, clip_of
from ritornel.core.sound.events import SoundTime
from ritornel.core.sound.passes import shrink_fades
from ritornel.core.sound.tempo import sound_key


def clip_runs_ms(clip: Clip, times: SlideSchedule, time: BuildTime) -> int:
    """How long a clip runs: once, or, where it repeats, until its slide ends; never longer than its slide."""
    left = max(times.length_ms - times.beats[time.beat].start_ms - time.offset_ms, 0)
    return left if clip.repeats else min(clip.pass_ms, left)


def holds_clips(slide: Slide) -> bool:
    """Whether there is a clip on the slide."""
    return _holds_clips(Itself(slide))


@lru_cache(maxsize=8192)
def _holds_clips(slide: Itself) -> bool:
    return any(isinstance(item, Clip) for item in slide.value.objects)


def compile_clips(show: Show, schedule: ShowSchedule) -> tuple[SoundTime, ...]:
    """One for each clip that is heard, by start; none outlasts its slide.

    Fades that do not both fit shrink in proportion.
    """
    found: list[SoundTime] = []
    slides = show.shown
    for index, (slide, times) in enumerate(zip(slides, schedule.slides, strict=True)):
        if not holds_clips(slide):
            continue
        start = schedule.starts_ms[index]
        for build, time in zip(slide.order, times.builds, strict=True):
            clip = clip_of(slide, build)
            asset = show.asset(clip.asset_id) if clip else None
            if clip is None or asset is None or clip.muted or not asset.heard:
                continue
            begins = times.beats[time.beat].start_ms + time.offset_ms
            left = times.length_ms - begins
            # All of it in the time of the sound as it is played, which at another speed is another sound.
            in_ms = played_ms(clip.in_ms, clip.rate_pct)
            lasts_ms = (
                left if clip.repeats else min(clip.pass_ms, played_ms(asset.lasts_ms, clip.rate_pct) - in_ms, left)
            )
            if lasts_ms <= 0:
                continue
            fades = shrink_fades(clip.fade_in_ms, clip.fade_out_ms, lasts_ms)
            pass_ms = clip.pass_ms if clip.repeats else 0
            found.append(
                SoundTime(
                    id=f"clip {build.id}",
                    asset_id=sound_key(asset.id, clip.rate_pct),
                    start_ms=start + begins,
                    in_ms=in_ms,
                    lasts_ms=lasts_ms,
                    gain_db=clip.gain_db,
                    index=index,
                    offset_ms=time.offset_ms,
                    beat=time.beat,
                    loops=clip.repeats,
                    pass_ms=pass_ms,
                    fade_in_ms=fades[0],
                    fade_out_ms=fades[1],
                    ends_with_beat=clip.holds and not clip.repeats,
                )
            )
    return tuple(sorted(found, key=lambda event: (event.start_ms, event.id)))
