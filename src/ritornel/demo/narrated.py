"""“The Orlmere clock, told”: the same slides with a voice on each, which they follow; the music sinks under it.

`python -m ritornel.demo.narrated` has Debian's espeak-ng speak the voices again.
"""

import subprocess
import tempfile
from functools import cache
from pathlib import Path

import msgspec
import numpy as np
from av.audio.resampler import AudioResampler

from ritornel.core.containers import open_container
from ritornel.core.document.show import AdvanceWithVoice, Asset, OnCue, Show, Slide, SoundEffect, Voice
from ritornel.core.formats.media import Limits, asset_from, probe_medium, read_medium
from ritornel.demo.music import RATE, write
from ritornel.demo.orlmere import MEDIA, media, orlmere
from ritornel.sounds import AUTHOR, LICENCE, library_sound

VOICES = MEDIA / "voices"

SPOKEN = {
    "noon-s": "Orlmere, at noon. The clock on the tower is going again.",
    "who-s": "Who winds it? For thirty years, nobody did. Now eleven of us take turns. Seventy-eight "
    "turns of the crank, every second evening.",
    "esc-s": "This is the escapement. The wheel wants to run. The pallets let one tooth pass, for every "
    "swing. That is the tick you hear.",
    "two-s": "Two wheels, two jobs. The great wheel takes the weight. The small one gives up a tooth at "
    "every swing. One has the strength, the other the time.",
    "men-s": "What did we mend? A cracked pin, a bent arbor, nine teeth, and the dial. It took us six "
    "years of Saturdays.",
    "dial-s": "The dial was painted over four times. Under it all, we found the first one.",
    "bell-s": "And the bell. It is older than the clock. Listen.",
    "night-s": "It is still going. Somebody is up there right now.",
    "thx-s": "Come and wind it with us. Saturdays, at ten, at the foot of the tower.",
}
PRACTICE = (
    "This is the practice microphone. It speaks, so that you can try a recording before anybody listens. "
    "Seventy-eight turns of the crank, every second evening. The wheel wants to run, and the "
    "pallets let one tooth pass. "
    "Press the next cue whenever you like, pause, and go on. Nothing of this has to be kept."
)
PRACTICE_FILE = Path(__file__).parents[1] / "web" / "static" / "ritornel" / "record" / "practice-voice.ogg"
BEGINS_MS = 700
"""Each voice begins when the slide has come in."""


@cache
def told_media() -> dict[str, tuple[Asset, bytes]]:
    """The demo's media, a voice for each slide and the bell, with their bytes, by asset id."""
    found = dict(media())
    names = {slide.id: slide.name for slide in orlmere().slides}
    for slide_id in SPOKEN:
        data = (VOICES / f"{slide_id}.ogg").read_bytes()
        name = f"{names[slide_id].rstrip('?')}, spoken"
        asset = asset_from(
            probe_medium(data, name, Limits()), f"voice-{slide_id}", name, author=AUTHOR, licence=LICENCE
        )
        found[asset.id] = (asset, data)
    bell = library_sound("bell")
    assert bell is not None
    medium = read_medium(bell.path, Limits())
    found["bell-sound"] = (asset_from(medium, "bell-sound", bell.title, author=AUTHOR, licence=LICENCE), medium.data)
    return found


def _told(slide: Slide, lasts_ms: int) -> Slide:
    """The slide following its voice, its cues spread over what is said."""
    replace = msgspec.structs.replace
    cues = [build.starts.cue_id for build in slide.order if isinstance(build.starts, OnCue)]
    marks = {cue: lasts_ms * number // (len(cues) + 1) for number, cue in enumerate(cues, 1)}
    voice = Voice(f"voice-{slide.id}", lasts_ms, offset_ms=BEGINS_MS, marks=marks)
    transition = (
        replace(slide.transition, sound=SoundEffect("bell-sound", -6.0)) if slide.id == "bell-s" else slide.transition
    )
    return replace(slide, voice=voice, advance=AdvanceWithVoice(900), transition=transition)


def told(show_id: str = "told") -> Show:
    """The show."""
    show = orlmere(show_id)
    slides = tuple(_told(slide, told_media()[f"voice-{slide.id}"][0].lasts_ms) for slide in show.slides)
    assets = tuple(asset for asset, _ in told_media().values())
    return msgspec.structs.replace(show, title="The Orlmere clock, told", slides=slides, assets=assets)


def _speak(words: str, path: Path) -> None:
    """Has espeak-ng say it, and writes it as Opus at 48 kHz, with a level of its own taken down from full scale."""
    with tempfile.TemporaryDirectory() as folder:
        spoken = Path(folder) / "spoken.wav"
        subprocess.run(
            ["espeak-ng", "-v", "en-gb", "-s", "150", "-p", "38", "-g", "6", "-w", str(spoken), words], check=True
        )
        parts = []
        with open_container(spoken) as container:
            resampler = AudioResampler(format="flt", layout="stereo", rate=RATE)
            for frame in container.decode(audio=0):
                parts += [part.to_ndarray().reshape(-1, 2) for part in resampler.resample(frame)]
            parts += [part.to_ndarray().reshape(-1, 2) for part in resampler.resample(None)]
    samples = np.concatenate(parts)
    loud = np.flatnonzero(np.abs(samples).max(axis=1) > 0.01)
    samples = samples[max(loud[0] - RATE // 50, 0) : loud[-1] + RATE // 10]
    write((samples / np.abs(samples).max() * 0.6).astype(np.float32), path, bit_rate=32_000)


if __name__ == "__main__":
    for name, sentence in SPOKEN.items():
        _speak(sentence, VOICES / f"{name}.ogg")
    _speak(PRACTICE, PRACTICE_FILE)
