"""Makes the library of sounds: `python -m ritornel.sounds.making`. Only needed to make them again."""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from ritornel.demo.music import RATE, write
from ritornel.sounds import LIBRARY

Wave = NDArray[np.float64]


def _time(length_s: float) -> Wave:
    return np.arange(int(length_s * RATE)) / RATE


def _noise(length_s: float, seed: int) -> Wave:
    return np.random.default_rng(seed).standard_normal(int(length_s * RATE))


def _smooth(wave: Wave, width: int) -> Wave:
    """A running mean: takes away what is brighter than about 0.44 RATE / width."""
    return np.convolve(wave, np.ones(width) / width, "same")


def _click(pitch_hz: float, seed: int) -> Wave:
    t = _time(0.12)
    body = np.sin(2 * np.pi * pitch_hz * t) * np.exp(-t * 90) + 0.5 * np.sin(2 * np.pi * pitch_hz * 2.76 * t) * np.exp(
        -t * 140
    )
    return np.asarray(body + 0.35 * _noise(0.12, seed) * np.exp(-t * 300))


def tick() -> Wave:
    return _click(1900, 1)


def tock() -> Wave:
    return _click(1250, 2)


def _struck(pitch_hz: float, length_s: float) -> Wave:
    """A bell: hum, prime, tierce, quint, nominal and two above, each dying the sooner the higher it is."""
    t = _time(length_s)
    partials = [
        (0.5, 0.5, 0.5),
        (1.0, 0.8, 0.8),
        (1.2, 0.6, 1.1),
        (1.5, 0.35, 1.5),
        (2.0, 0.7, 1.6),
        (2.66, 0.3, 2.6),
        (3.01, 0.25, 3.4),
    ]
    tone = sum(
        level * np.sin(2 * np.pi * pitch_hz * ratio * t) * np.exp(-t * decay * 2.2 / length_s * 3)
        for ratio, level, decay in partials
    )
    strike = _noise(length_s, 3) * np.exp(-t * 400) * 0.3
    return np.asarray((tone + strike) * np.minimum(t / 0.001, 1.0) * np.minimum((length_s - t) / 0.2, 1.0))


def bell() -> Wave:
    return _struck(392, 4.0)


def small_bell() -> Wave:
    return _struck(1318, 1.8)


def page() -> Wave:
    t = _time(0.55)
    hush = _noise(0.55, 4) - _smooth(_noise(0.55, 4), 9)
    flutter = 0.6 + 0.4 * np.sin(2 * np.pi * (18 + 40 * t) * t)
    return np.asarray(hush * flutter * np.sin(np.pi * np.minimum(t / 0.55, 1.0)) ** 1.5)


def whoosh() -> Wave:
    t = _time(0.9)
    shape = np.sin(np.pi * t / 0.9) ** 2
    low, high = _smooth(_noise(0.9, 5), 60), _smooth(_noise(0.9, 5), 14)
    return np.asarray((low * 6 * (1 - shape) + high * 2.2 * shape) * shape)


def ratchet() -> Wave:
    out = np.zeros(int(0.9 * RATE))
    for number in range(9):
        at = int((0.02 + number * 0.085) * RATE)
        out[at : at + len(tock())] += _click(1500 + 60 * (number % 2), 10 + number) * (0.6 + 0.05 * number)
    return out


def clockwork() -> Wave:
    """Two seconds of a tower clock, whose end runs into its start."""
    out = np.zeros(2 * RATE)
    for number in range(4):
        sound = (tick() if number % 2 == 0 else tock()) * 0.8
        where = (int(number * 0.5 * RATE) + np.arange(len(sound))) % len(out)
        np.add.at(out, where, sound)
    return out


def room() -> Wave:
    """Six seconds of a quiet room, without a seam: noise made in the frequencies, which repeats by itself."""
    count = 6 * RATE
    chance = np.random.default_rng(6)
    hz = np.fft.rfftfreq(count, 1 / RATE)
    spectrum = chance.standard_normal(len(hz)) + 1j * chance.standard_normal(len(hz))
    spectrum *= 1 / np.maximum(hz, 40) ** 1.1 * (hz > 30) * (hz < 6000)
    return np.asarray(np.fft.irfft(spectrum, count))


MAKERS: dict[str, tuple[Callable[[], Wave], float]] = {
    "tick": (tick, 0.5),
    "tock": (tock, 0.5),
    "bell": (bell, 0.6),
    "small-bell": (small_bell, 0.5),
    "page": (page, 0.35),
    "whoosh": (whoosh, 0.45),
    "ratchet": (ratchet, 0.5),
    "clockwork": (clockwork, 0.35),
    "room": (room, 0.08),
}

if __name__ == "__main__":
    for sound in LIBRARY:
        make, level = MAKERS[sound.name]
        wave = make()
        wave *= level / np.abs(wave).max()
        write(np.repeat(wave[:, None], 2, axis=1).astype(np.float32), sound.path)
