"""The voices of all slides on the show's clock (domain rule 5)."""

from ritornel.core.document.show import Asset, Show
from ritornel.core.schedule.show_schedule import ShowSchedule
from ritornel.core.sound.events import SoundTime

VOICE_LUFS = -16.0
MOST_LEVELLED_DB = 20.0


def levelled_db(asset: Asset) -> float:
    """The gain that brings a voice to the loudness of all others; 0 where its loudness is unknown."""
    if asset.loudness_lufs is None:
        return 0.0
    return max(-MOST_LEVELLED_DB, min(VOICE_LUFS - asset.loudness_lufs, MOST_LEVELLED_DB))


def compile_voices(show: Show, schedule: ShowSchedule) -> tuple[SoundTime, ...]:
    """One for each shown slide with a voice that can be heard: a voice ends with its slide at the latest. There is none
    where its sound is missing or ends before the voice would begin.
    """
    slides = show.shown
    found = []
    for index, (slide, times) in enumerate(zip(slides, schedule.slides, strict=True)):
        voice = slide.voice
        asset = show.asset(voice.asset_id) if voice else None
        if voice is None or asset is None:
            continue
        lasts_ms = min(voice.lasts_ms, asset.lasts_ms - voice.in_ms, times.length_ms - voice.offset_ms)
        if lasts_ms > 0:
            start_ms = schedule.starts_ms[index] + voice.offset_ms
            found.append(
                SoundTime(
                    id=f"voice {slide.id}",
                    asset_id=asset.id,
                    start_ms=start_ms,
                    in_ms=voice.in_ms,
                    lasts_ms=lasts_ms,
                    gain_db=voice.gain_db + levelled_db(asset),
                    index=index,
                    offset_ms=voice.offset_ms,
                )
            )
    return tuple(found)
