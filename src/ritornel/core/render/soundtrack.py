"""The sound of a whole show: its files decoded, mixed, and measured as it will be published."""

import math
from pathlib import Path

import msgspec

from ritornel.core.document.decoding import from_json
from ritornel.core.document.show import Show
from ritornel.core.errors import BadMedia
from ritornel.core.render.painter import MediaPath
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.sound.decoding import decoded, kept_in_file
from ritornel.core.sound.gain import Samples
from ritornel.core.sound.mastering import master_of, measured
from ritornel.core.sound.mixing import mixed
from ritornel.core.sound.tempo import asset_and_rate, at_tempo
from ritornel.core.time.edges import sample_at


class Loudness(msgspec.Struct, frozen=True):
    """How loud a self-running show is as it is mixed, by ITU-R BS.1770, and what its film lands at; None where it is silent. `limits` where peaks have
    to be held down for that."""

    lufs: float | None
    peak_dbtp: float | None
    lands_at_lufs: float | None
    limits: bool = False


def decoded_sounds(performance: Performance, media: MediaPath, folder: Path) -> dict[str, Samples]:
    """The samples of all that is heard, by what it is called, each in a file of `folder`. Raises BadMedia for what is missing."""
    sounds = {}
    for number, key in enumerate(performance.sound_ids()):
        asset_id, rate_pct = asset_and_rate(key)
        asset = performance.assets[asset_id]
        source = media(asset.sha256)
        if not source.is_file():
            raise BadMedia(f"The sound “{asset.name}” is missing, so the show cannot be mixed.")
        sounds[key] = kept_in_file(at_tempo(decoded(source), rate_pct), folder / f"{number}.raw", asset.name)
    return sounds


def loudness_of_show(performance: Performance, media: MediaPath, folder: Path) -> Loudness:
    """The show's loudness, its sounds decoded into `folder`. Raises BadMedia."""
    sounds = decoded_sounds(performance, media, folder)
    total = sample_at(performance.schedule.length_ms)

    def mix(first: int, count: int) -> Samples:
        return mixed(performance.music, sounds, first, count, performance.events)

    lufs, peak = measured(mix, total)
    if not sounds or not math.isfinite(lufs):
        return Loudness(None, None, None)
    master = master_of(mix, total)
    return Loudness(round(lufs, 1), round(20 * math.log10(peak), 1), round(master.reached_lufs, 1), master.limits)


def write_loudness(document: bytes, media: dict[str, Path], folder: Path, target: Path) -> None:
    """Writes the loudness of a show, given as its JSON, as JSON; `media` are its files by their hash."""
    performance = perform(from_json(document, Show, "The show"))
    target.write_bytes(msgspec.json.encode(loudness_of_show(performance, lambda sha256: media.get(sha256, folder / "missing"), folder)))
