"""The mix of ten minutes of voices, music that sinks under them, and effects, against the time they last."""

import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

import msgspec

from ritornel.core.document import AdvanceAfter, MusicSpan
from ritornel.core.document.show import Asset, SoundEffect, Voice
from ritornel.core.schedule.performance import perform
from ritornel.core.sound.decoding import decode_sound, keep_in_file
from ritornel.core.sound.mastering import master_of
from ritornel.core.sound.mixing import mix_block
from ritornel.core.time import sample_at
from ritornel.demo.orlmere import MEDIA, orlmere
from ritornel.sounds import library_sound

Line = tuple[str, str, str]
MINUTES, EACH_S = 10, 10


def measure() -> Iterator[Line]:
    bell = library_sound("bell")
    assert bell is not None
    base = orlmere()
    waltz = next(asset for asset in base.assets if asset.id == "waltz")
    ring = Asset("bell", "Bell", "b" * 64, "audio/ogg", size_bytes=1, lasts_ms=3000)
    one = base.slides[0]
    slides = tuple(
        msgspec.structs.replace(
            one,
            id=f"s{n}",
            advance=AdvanceAfter(EACH_S * 1000, True),
            voice=Voice("waltz", 7000, 1000, 1500),
            transition=msgspec.structs.replace(one.transition, sound=SoundEffect("bell")),
        )
        for n in range(MINUTES * 60 // EACH_S)
    )
    music = (MusicSpan(id="span", asset_id="waltz", crossfade_ms=500, fade_in_ms=500, fade_out_ms=4000, ducks=True),)
    performance = perform(msgspec.structs.replace(base, slides=slides, assets=(waltz, ring), music=music))
    total = sample_at(performance.schedule.length_ms)
    with tempfile.TemporaryDirectory() as folder:
        sounds = {
            "waltz": keep_in_file(decode_sound(MEDIA / "winders-waltz.ogg"), Path(folder) / "w", "sound"),
            "bell": keep_in_file(decode_sound(bell.path), Path(folder) / "b", "sound"),
        }

        def mix(first: int, count: int):  # type: ignore[no-untyped-def]
            return mix_block(performance.music, sounds, first, count, performance.events)

        start = time.perf_counter()
        for first in range(0, total, 48_000):
            mix(first, min(48_000, total - first))
        took = time.perf_counter() - start
        lasts = total / 48_000
        yield (
            (f"mixing {lasts / 60:.0f} minutes, {len(performance.events)} voices and effects"),
            f"{took:.1f} s, {lasts / took:.0f} times",
            "50 times real time",
        )
        start = time.perf_counter()
        master = master_of(mix, total)
        took = time.perf_counter() - start
        yield "measuring and mastering them too", f"{took:.1f} s, {lasts / took:.0f} times", "told"
        yield "loudness it lands at", f"{master.reached_lufs:.2f} LUFS", "-16 ± 0.5"
