"""What a minute of film costs at the sizes and rates beyond the usual: photographs of 4 000 x 2 667, each dissolving
into the next, one of them drifting.
"""

import shutil
import tempfile
from collections.abc import Iterator
from pathlib import Path

import msgspec
import numpy as np
from PIL import Image

from bench.film import Line, album, ours
from ritornel.core.document import Box, Picture, Show, Slide
from ritornel.core.document.decoding import to_json
from ritornel.core.document.objects import Crop, Drift

SIZES = ((1280, 720, 30), (1280, 720, 60), (1920, 1080, 30), (3840, 2160, 30))
PHOTOS, EACH_S = 12, 5
DRIFTS, DRIFT_S = 4, 6


def make_photographs(folder: Path) -> None:
    """Photographs of twelve megapixels with soft shapes and a little grain."""
    chance = np.random.default_rng(2)
    for number in range(PHOTOS):
        soft = Image.fromarray(chance.integers(0, 255, (24, 36, 3), dtype=np.uint8)).resize(
            (4000, 2667), Image.Resampling.BICUBIC
        )
        grainy = np.asarray(soft).astype(np.int16) + chance.integers(-3, 4, (2667, 4000, 1), dtype=np.int16)
        Image.fromarray(np.clip(grainy, 0, 255).astype(np.uint8)).save(folder / f"{number:02d}.jpg", quality=90)


def drifting(slide: Slide, number: int) -> Slide:
    """The slide with its photograph drifting into a part of it."""
    picture = Picture(
        f"o{number}",
        f"Photograph {number}",
        Box(0, 0, 1280, 720),
        f"a{number}",
        drift=Drift(Crop(0.1, 0.06, 0.84, 0.84)),
    )
    return msgspec.structs.replace(slide, objects=(picture,), order=())


def minute() -> Show:
    """Twelve slides of five seconds without sound, the third of which drifts."""
    show = album(PHOTOS, EACH_S)
    slides = [drifting(slide, number) if number == 2 else slide for number, slide in enumerate(show.slides)]
    return msgspec.structs.replace(show, slides=tuple(slides), music=())


def drifts() -> Show:
    """Four slides of six seconds that all drift."""
    show = album(DRIFTS, DRIFT_S)
    slides = [drifting(slide, number) for number, slide in enumerate(show.slides)]
    return msgspec.structs.replace(show, slides=tuple(slides), music=())


def measure() -> Iterator[Line]:
    folder = Path(tempfile.mkdtemp(prefix="ritornel-bench-"))
    try:
        make_photographs(folder)
        (folder / "minute.json").write_bytes(to_json(minute()))
        (folder / "drifts.json").write_bytes(to_json(drifts()))
        took_s, _ = ours(folder, "drifts.json", "drifts.mp4")
        plays_s = DRIFTS * DRIFT_S
        yield (
            f"{plays_s} s of photographs that drift, 1280 × 720",
            f"{took_s:.1f} s, {plays_s / took_s:.1f} times as fast as it plays",
            "8 times",
        )
        for width, height, rate in SIZES:
            took_s, memory_mb = ours(folder, "minute.json", "minute.mp4", size=(width, height, rate))
            size_mb = (folder / "minute.mp4").stat().st_size / 1e6
            yield (
                f"a minute of {width} × {height} at {rate} a second, photographs of 4 000 × 2 667",
                f"{took_s:.1f} s, {memory_mb:.0f} MB of memory, {size_mb:.1f} MB",
                "told",
            )
    finally:
        shutil.rmtree(folder, ignore_errors=True)
