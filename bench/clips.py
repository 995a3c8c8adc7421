"""A film of six photographs and two clips, each dissolving into the next, against ffmpeg's command line doing the
same.
"""

import json
import shutil
import subprocess
import tempfile
import time
from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from PIL import Image

from bench.film import held, ours
from ritornel.core.document import AdvanceAfter, Asset, Box, Build, Show, Slide, Transition
from ritornel.core.document.decoding import to_json
from ritornel.core.document.objects import PLAYS, Clip, Picture
from ritornel.core.document.show import Together

Line = tuple[str, str, str]
CLIP_S, IN_S, OUT_S, RATE = 14, 2, 12, 30
PHOTO_S = 5
ORDER = "ppcppcpp"
"""p is a photograph, c a clip."""


def make_clip(path: Path, hue: int) -> None:
    """A clip with soft shapes that move, a little grain, and a tone."""
    chance = np.random.default_rng(hue)
    grain = [chance.integers(-3, 4, (720, 1280, 1)) for _ in range(4)]
    y, x = np.mgrid[0:720, 0:1280]
    with av.open(str(path), "w") as container:
        stream = container.add_stream("libx264", rate=RATE, options={"preset": "veryfast", "crf": "18"})
        stream.width, stream.height, stream.pix_fmt = 1280, 720, "yuv420p"
        audio = container.add_stream("aac", rate=48_000, layout="stereo")
        for number in range(CLIP_S * RATE):
            at = number / RATE
            light = 90 + 80 * np.exp(-((x - 640 - 400 * np.sin(at)) ** 2 + (y - 360) ** 2) / 40_000)
            picture = np.stack([light, light * 0.7 + hue, 180 - light * 0.5], axis=2) + grain[number % 4]
            frame = av.VideoFrame.from_ndarray(np.clip(picture, 0, 255).astype(np.uint8), format="rgb24")
            frame.pts, frame.time_base = number, Fraction(1, RATE)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
        t = np.arange(CLIP_S * 48_000) / 48_000
        tone = (0.2 * np.sin(2 * np.pi * (220 + hue) * t)).astype(np.float32)
        for first in range(0, len(tone), 48_000):
            block = np.ascontiguousarray(np.repeat(tone[first : first + 48_000, None], 2, axis=1).reshape(1, -1))
            sounding = av.AudioFrame.from_ndarray(block, format="flt", layout="stereo")
            sounding.sample_rate, sounding.pts, sounding.time_base = 48_000, first, Fraction(1, 48_000)
            container.mux(audio.encode(sounding))
        container.mux(audio.encode(None))


def lesson() -> Show:
    """A slide for each, filled by it; clips are shown for ten seconds."""
    slides, assets = [], []
    for number, kind in enumerate(ORDER):
        full = Box(0, 0, 1280, 720)
        item: Picture = Picture(f"o{number}", "Photograph", full, f"a{number}")
        order: tuple[Build, ...] = ()
        asset = Asset(
            f"a{number}", str(number), f"{number:064x}", "image/jpeg", size_bytes=1, width_px=1280, height_px=720
        )
        if kind == "c":
            item = Clip(f"o{number}", "Clip", full, f"a{number}", in_ms=IN_S * 1000, out_ms=OUT_S * 1000)
            order = (Build(id=f"b{number}", object_id=item.id, effect=PLAYS, starts=Together()),)
            asset = Asset(
                f"a{number}",
                str(number),
                f"{number:064x}",
                "video/mp4",
                size_bytes=1,
                width_px=1280,
                height_px=720,
                lasts_ms=CLIP_S * 1000,
            )
        transition = Transition("dissolve", 1000, "even") if number else Transition()
        slides.append(
            Slide(
                f"s{number}",
                objects=(item,),
                order=order,
                transition=transition,
                advance=AdvanceAfter(PHOTO_S * 1000 if kind == "p" else 0),
            )
        )
        assets.append(asset)
    return Show("lesson", "Lesson", slides=tuple(slides), assets=tuple(assets))


def lengths_s() -> list[int]:
    """How long each slide lasts: a clip begins when its slide has dissolved in."""
    return [PHOTO_S if kind == "p" else OUT_S - IN_S + 1 for kind in ORDER]


def theirs(folder: Path) -> float:
    """ffmpeg: a clip's first picture stands while it dissolves in, its last while the next one does; its sound is put
    where it plays.
    """
    words: list[str] = []
    graph: list[str] = []
    sounds: list[str] = []
    at = 0
    for number, (kind, lasts) in enumerate(zip(ORDER, lengths_s(), strict=True)):
        path = str(folder / f"{number:02d}.jpg")
        if kind == "p":
            words += ["-i", path]
            graph.append(
                f"[{number}:v]scale=1280:720:out_color_matrix=bt709:out_range=tv,format=yuv420p,setsar=1,{held(lasts + 1)}[v{number}]"
            )
        else:
            words += ["-i", path]
            hold = "tpad=start_mode=clone:start_duration=1:stop_mode=clone:stop_duration=1"
            graph.append(
                f"[{number}:v]trim={IN_S}:{OUT_S},setpts=PTS-STARTPTS,fps={RATE},{hold},format=yuv420p,setsar=1,settb=1/{RATE}[v{number}]"
            )
            graph.append(
                f"[{number}:a]atrim={IN_S}:{OUT_S},asetpts=PTS-STARTPTS,adelay={(at + 1) * 1000}:all=1[s{number}]"
            )
            sounds.append(f"[s{number}]")
        at += lasts
    last, at = "v0", 0
    for number, lasts in enumerate(lengths_s()[:-1], 1):
        at += lasts
        graph.append(f"[{last}][v{number}]xfade=transition=fade:duration=1:offset={at}[x{number}]")
        last = f"x{number}"
    length = sum(lengths_s())
    graph.append(f"{''.join(sounds)}amix=inputs={len(sounds)}:normalize=0,apad[s]")
    command = [
        "ffmpeg",
        "-y",
        "-v",
        "error",
        *words,
        "-filter_complex",
        ";".join(graph),
        "-map",
        f"[{last}]",
        "-map",
        "[s]",
        "-t",
        str(length),
    ]
    command += [
        "-c:v",
        "libx264",
        "-preset",
        "veryfast",
        "-crf",
        "20",
        "-c:a",
        "aac",
        "-b:a",
        "160k",
        str(folder / "theirs.mp4"),
    ]
    start = time.perf_counter()
    subprocess.run(command, check=True)
    return time.perf_counter() - start


def measure() -> Iterator[Line]:
    folder = Path(tempfile.mkdtemp(prefix="ritornel-bench-"))
    try:
        chance = np.random.default_rng(1)
        for number, kind in enumerate(ORDER):
            # The names that bench.film's process looks for; what a file is, is told by its content.
            if kind == "c":
                make_clip(folder / "clip.mp4", 10 * number)
                (folder / "clip.mp4").rename(folder / f"{number:02d}.jpg")
                continue
            soft = Image.fromarray(chance.integers(0, 255, (24, 36, 3), dtype=np.uint8)).resize(
                (1280, 720), Image.Resampling.BICUBIC
            )
            grainy = np.asarray(soft).astype(int) + chance.integers(-3, 4, (720, 1280, 1))
            Image.fromarray(np.clip(grainy, 0, 255).astype(np.uint8)).save(folder / f"{number:02d}.jpg", quality=90)
        (folder / "lesson.json").write_bytes(to_json(lesson()))
        base = theirs(folder)
        yield "ffmpeg's command line", f"{base:.1f} s", "the baseline"
        took, memory = ours(folder, "lesson.json", "ours.mp4", "sparse")
        yield "film of six photographs and two clips", f"{took:.1f} s, {took / base:.2f}", "at most 0.40"
        yield "peak memory", f"{memory:.0f} MB", "told"
        lengths = json.loads(
            subprocess.run(
                ["ffprobe", "-v", "error", "-show_entries", "format=duration", "-of", "json", str(folder / "ours.mp4")],
                capture_output=True,
                text=True,
                check=True,
            ).stdout
        )
        yield "it lasts", f"{float(lengths['format']['duration']):.2f} s", f"{sum(lengths_s())} s"
    finally:
        shutil.rmtree(folder, ignore_errors=True)
