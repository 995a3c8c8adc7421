"""Makes the demo's music:

`python -m ritornel.demo.music`. Only needed to make it again.

The Winders' Waltz: a plucked waltz of 16 bars over a soft bass, with the tick of the pallets, so made that its end runs
into its start.
"""

from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from numpy.typing import NDArray

RATE = 48_000
BEAT_S = 0.5
CHORDS = [
    (48, 55, 64),
    (48, 57, 64),
    (53, 57, 65),
    (55, 59, 65),
    (45, 57, 64),
    (50, 57, 65),
    (55, 59, 67),
    (48, 55, 64),
]
MELODY = [76, 79, 84, 83, 79, 76, 77, 81, 84, 83, 81, 79, 72, 76, 79, 77, 76, 74, 79, 77, 74, 72, 67, 72]
MEDIA = Path(__file__).parent / "media"


def pluck(note: int, length_s: float, level: float, bright: float) -> NDArray[np.float64]:
    """A plucked string: partials that die the sooner the higher they are."""
    t = np.arange(int(length_s * RATE)) / RATE
    pitch_hz = 440.0 * 2 ** ((note - 69) / 12)
    tone = sum(np.sin(2 * np.pi * pitch_hz * k * t) * bright**k * np.exp(-t * (1.6 + 1.1 * k)) for k in range(1, 7))
    return np.asarray(tone * level * np.minimum(t / 0.004, 1.0))


def waltz() -> NDArray[np.float32]:
    """Stereo samples, shape (n, 2).

    Tails that reach past the end are added at the start, so a plain repeat has no seam.
    """
    bars = len(CHORDS) * 2
    total = int(bars * 3 * BEAT_S * RATE)
    out = np.zeros((total, 2))

    def place(sound: NDArray[np.float64], at_s: float, pan: float) -> None:
        where = (int(at_s * RATE) + np.arange(len(sound))) % total
        np.add.at(out[:, 0], where, sound * np.sqrt(1 - pan))
        np.add.at(out[:, 1], where, sound * np.sqrt(pan))

    tick = np.random.default_rng(7).standard_normal(900) * np.exp(-np.arange(900) / 110.0) * 0.03
    for bar in range(bars):
        bass, *upper = CHORDS[bar % len(CHORDS)]
        start_s = bar * 3 * BEAT_S
        place(pluck(bass, 2.4, 0.30, 0.55), start_s, 0.45)
        for beat in (1, 2):
            for note in upper:
                place(pluck(note, 1.4, 0.10, 0.45), start_s + beat * BEAT_S, 0.62)
        for beat in range(3):
            note = MELODY[(bar * 3 + beat) % len(MELODY)]
            if (bar + beat) % 5 != 4:
                place(pluck(note, 2.2, 0.16, 0.38), start_s + beat * BEAT_S, 0.38)
            place(tick if beat else tick * 1.6, start_s + beat * BEAT_S, 0.5)
    return np.asarray(out / np.abs(out).max() * 0.7, dtype=np.float32)


def write(samples: NDArray[np.float32], path: Path, bit_rate: int = 64_000) -> None:
    """Writes an Ogg file with Opus, at 64 kbit/s unless told otherwise."""
    with av.open(str(path), "w", format="ogg") as container:
        stream = container.add_stream("libopus", rate=RATE, layout="stereo")
        stream.bit_rate = bit_rate
        for first in range(0, len(samples), 960):
            block = np.ascontiguousarray(samples[first : first + 960].reshape(1, -1))
            frame = av.AudioFrame.from_ndarray(block, format="flt", layout="stereo")
            frame.sample_rate, frame.pts, frame.time_base = RATE, first, Fraction(1, RATE)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))


if __name__ == "__main__":
    write(waltz(), MEDIA / "winders-waltz.ogg")
