"""The sounds of builds and transitions on the show's clock."""

import msgspec

from ritornel.core.document.show import Show, SoundEffect
from ritornel.core.schedule.show_schedule import ShowSchedule
from ritornel.core.sound.events import SoundTime
from ritornel.core.sound.passes import MusicTime
from ritornel.core.time.counts import ON_SLIDE


def compile_effects(show: Show, schedule: ShowSchedule, music: tuple[MusicTime, ...]) -> tuple[SoundTime, ...]:
    """All sounds of builds and transitions, by start.

    Each begins with its build or transition and is heard to its end, but not past the show's end. One that keeps on
    ends where the next transition's sound begins, or music that ends kept sounds.
    """
    end_ms = schedule.length_ms
    found: list[SoundTime] = []
    kept: list[tuple[SoundEffect, SoundTime]] = []

    def begin(name: str, effect: SoundEffect, start_ms: int, index: int, offset_ms: int, beat: int) -> SoundTime | None:
        asset = show.asset(effect.asset_id)
        if asset is None or not asset.lasts_ms or start_ms >= end_ms:
            return None
        lasts_ms = min(asset.lasts_ms, end_ms - start_ms)
        return SoundTime(
            id=name,
            asset_id=asset.id,
            start_ms=start_ms,
            in_ms=0,
            lasts_ms=lasts_ms,
            gain_db=effect.gain_db,
            index=index,
            offset_ms=offset_ms,
            beat=beat,
        )

    slides = show.shown
    for index, (slide, times) in enumerate(zip(slides, schedule.slides, strict=True)):
        start = schedule.starts_ms[index]
        if slide.transition.sound is not None:
            event = begin(f"transition {slide.id}", slide.transition.sound, start, index, 0, ON_SLIDE)
            if event is not None:
                kept.append((slide.transition.sound, event))
        for build, time in zip(slide.order, times.builds, strict=True):
            if build.sound is not None:
                event = begin(
                    f"build {build.id}",
                    build.sound,
                    start + times.beats[time.beat].start_ms + time.offset_ms,
                    index,
                    time.offset_ms,
                    time.beat,
                )
                found += [event] if event else []
    ending = {span.id for span in show.music if span.ends_kept}
    stops = sorted([event.start_ms for _, event in kept] + [span.start_ms for span in music if span.span_id in ending])
    for effect, event in kept:
        if effect.keeps_on:
            until = next((stop for stop in stops if stop > event.start_ms), end_ms)
            event = msgspec.structs.replace(event, lasts_ms=until - event.start_ms, loops=True)
        found.append(event)
    return tuple(sorted(found, key=lambda event: (event.start_ms, event.id)))
