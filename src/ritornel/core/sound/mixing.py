"""The mix of all spans, block by block: memory does not grow with the length of the show."""

from collections.abc import Mapping

import numpy as np

from ritornel.core.sound.events import EDGE_MS, SoundTime
from ritornel.core.sound.gain import Samples, fade_gain, gain_of
from ritornel.core.sound.passes import MusicTime
from ritornel.core.time.edges import sample_at


def mix_block(
    music: tuple[MusicTime, ...],
    sounds: Mapping[str, Samples],
    first: int,
    count: int,
    events: tuple[SoundTime, ...] = (),
) -> Samples:
    """Samples `first` .. `first + count` of the show's sound, shape (count, 2).

    `sounds` are the assets' samples by id.

    A pass at *t* ms starts at sample round(48 t); its gain is the span's level, times the span's fades, its ducking and
    its crossfades. A voice or another single sound starts at round(48 t) too.
    """
    out = np.zeros((count, 2), dtype=np.float32)
    for span in music:
        start, end = sample_at(span.start_ms), sample_at(span.end_ms)
        if end <= first or start >= first + count:
            continue
        level = gain_of(span.gain_db)
        span_gain = fade_gain(
            first, count, start, end, sample_at(span.fade_in_ms), sample_at(span.fade_out_ms)
        ) * np.float32(level)
        if span.ducking:
            span_gain *= _duck_gain(span, first, count)
        samples = sounds[span.asset_id]
        for run in span.passes:
            begin = sample_at(run.start_ms)
            stop = min(sample_at(run.end_ms), begin + len(samples))
            low, high = max(first, begin), min(first + count, stop)
            if low >= high:
                continue
            own = fade_gain(
                low,
                high - low,
                begin,
                begin + sample_at(run.full_ms),
                sample_at(run.fade_in_ms),
                sample_at(run.fade_out_ms),
            )
            gain = own * span_gain[low - first : high - first]
            out[low - first : high - first] += samples[low - begin : high - begin] * gain[:, None]
    for event in events:
        begin, edge = sample_at(event.start_ms), sample_at(EDGE_MS)
        samples, skipped = sounds[event.asset_id], sample_at(event.in_ms)
        stop = sample_at(event.end_ms) if event.loops else min(sample_at(event.end_ms), begin + len(samples) - skipped)
        low, high = max(first, begin), min(first + count, stop)
        if low < high:
            fade_in, fade_out = sample_at(event.fade_in_ms), sample_at(event.fade_out_ms)
            gain = fade_gain(
                low, high - low, begin, stop, max(edge if skipped else 0, fade_in), max(edge, fade_out)
            ) * np.float32(gain_of(event.gain_db))
            once = slice(skipped + low - begin, skipped + high - begin)
            around = min(sample_at(event.pass_ms), len(samples) - skipped) if event.pass_ms else len(samples)
            own = samples[skipped + np.arange(low - begin, high - begin) % around if event.loops else once]
            out[low - first : high - first] += own * gain[:, None]
    return out


def _duck_gain(span: MusicTime, first: int, count: int) -> Samples:
    """The gain of ducking for these samples: straight in dB between its breakpoints."""
    at = np.arange(first, first + count, dtype=np.float64)
    levels = np.interp(at, [sample_at(ms) for ms, _ in span.ducking], [level for _, level in span.ducking])
    return np.asarray(10.0 ** (levels / 20.0), dtype=np.float32)
