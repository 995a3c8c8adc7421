"""A film of photographs with dissolves, a title and music, against ffmpeg's command line doing the same in one filter
graph.
"""

import json
import re
import shutil
import subprocess
import sys
import tempfile
import time
import wave
from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from PIL import Image

from ritornel.core.document import (
    AdvanceAfter,
    Asset,
    Box,
    Build,
    Follows,
    MusicSpan,
    Paragraph,
    Picture,
    Show,
    Slide,
    Text,
    TextRun,
    Transition,
)
from ritornel.core.document.decoding import to_json
from ritornel.core.layout.faces import Face

PHOTOS, EACH_S, DISSOLVE_S, MUSIC_S, RATE = 16, 5, 1, 60, 30
Line = tuple[str, str, str]


def make_material(folder: Path) -> None:
    """Photographs of 1600 x 1067 with the fine grain of a good camera, and a minute of music."""
    chance = np.random.default_rng(1)
    for number in range(PHOTOS):
        soft = Image.fromarray(chance.integers(0, 255, (24, 36, 3), dtype=np.uint8)).resize(
            (1600, 1067), Image.Resampling.BICUBIC
        )
        grainy = np.asarray(soft).astype(int) + chance.integers(-3, 4, (1067, 1600, 1))
        Image.fromarray(np.clip(grainy, 0, 255).astype(np.uint8)).save(folder / f"{number:02d}.jpg", quality=90)
    t = np.arange(48_000 * MUSIC_S) / 48_000
    tone = (np.sin(2 * np.pi * 220 * t) * (0.5 + 0.5 * np.sin(t)) * 0.3 * 32767).astype("<i2")
    with wave.open(str(folder / "music.wav"), "wb") as sound:
        sound.setnchannels(2)
        sound.setsampwidth(2)
        sound.setframerate(48_000)
        sound.writeframes(np.repeat(tone, 2).tobytes())


def album(slides: int = PHOTOS, each_s: int = EACH_S) -> Show:
    """The show: a title fades in and out over the first picture; every picture dissolves into the next; music loops
    under all.
    """
    title = Text(
        "title",
        "Title",
        Box(0, 300, 1280, 120),
        paragraphs=(Paragraph("p", (TextRun("The winders' album"),)),),
        size_px=72,
        colour="#ffffff",
        align="centre",
    )
    result = []
    for number in range(slides):
        picture = Picture(f"o{number}", f"Photograph {number}", Box(0, 0, 1280, 720), f"a{number % PHOTOS}")
        transition = Transition("dissolve", DISSOLVE_S * 1000, "even") if number else Transition()
        order, objects = (), (picture,)
        if number == 0:
            objects = (picture, title)  # type: ignore[assignment]
            order = (
                Build(
                    id="in",
                    object_id="title",
                    effect="enters fade",
                    starts=Follows(),
                    after_ms=500,
                    lasts_ms=1000,
                    pace="even",
                ),
                Build(
                    id="out",
                    object_id="title",
                    effect="leaves fade",
                    starts=Follows(),
                    after_ms=1500,
                    lasts_ms=1000,
                    pace="even",
                ),
            )  # type: ignore[assignment]
        result.append(
            Slide(
                f"s{number}", objects=objects, order=order, transition=transition, advance=AdvanceAfter(each_s * 1000)
            )
        )
    assets = tuple(
        Asset(f"a{n}", str(n), f"{n:064x}", "image/jpeg", size_bytes=1, width_px=1600, height_px=1067)
        for n in range(PHOTOS)
    )
    music = Asset("m", "Music", f"{99:064x}", "audio/wav", size_bytes=1, lasts_ms=MUSIC_S * 1000)
    return Show(
        "album", "Album", slides=tuple(result), music=(MusicSpan(id="span", asset_id="m"),), assets=(*assets, music)
    )


FILM = """
import json, resource, sys, time
from fractions import Fraction
from pathlib import Path
import msgspec
from ritornel.core.document import Show
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import write_film
from ritornel.core.schedule.performance import perform
folder = Path(sys.argv[1])
show = msgspec.json.decode((folder / sys.argv[2]).read_bytes(), type=Show)
media = lambda sha: folder / ("music.wav" if int(sha, 16) == 99 else f"{int(sha, 16):02d}.jpg")
start = time.perf_counter()
width, height, rate = (int(word) for word in sys.argv[5:8])
order = FilmOrder(width, height, Fraction(rate), sys.argv[4] == "constant")
write_film(perform(show), folder / sys.argv[3], order, media)
print(json.dumps([time.perf_counter() - start, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024]))
"""


def ours(
    folder: Path, show: str, film: str, way: str = "sparse", size: tuple[int, int, int] = (1280, 720, RATE)
) -> tuple[float, float]:
    """Seconds of wall time and MB at the peak, in a process of its own. Its start is counted, as ffmpeg's is. `size` is
    width, height and frames a second.
    """
    start = time.perf_counter()
    words = [sys.executable, "-c", FILM, str(folder), show, film, way, *map(str, size)]
    out = subprocess.run(words, capture_output=True, text=True, check=True).stdout
    return time.perf_counter() - start, json.loads(out.splitlines()[-1])[1]


def held(shown_s: int) -> str:
    """A picture that was decoded and scaled once, shown for so long: what a good engineer writes, not a picture that is
    scaled anew for every frame.
    """
    return f"loop=loop=-1:size=1:start=0,trim=end_frame={shown_s * RATE},setpts=N/{RATE}/TB,fps={RATE},settb=1/{RATE}"


def theirs(folder: Path) -> float:
    """ffmpeg, the same in one filter graph."""
    length = PHOTOS * EACH_S
    words: list[str] = []
    graph: list[str] = []
    for number in range(PHOTOS):
        shown = EACH_S + (DISSOLVE_S if number + 1 < PHOTOS else 0)
        words += ["-i", str(folder / f"{number:02d}.jpg")]
        once = "scale=1280:854:out_color_matrix=bt709:out_range=tv,crop=1280:720,format=yuv420p,setsar=1"
        graph.append(f"[{number}:v]{once},{held(shown)}[v{number}]")
    last = "v0"
    for number in range(1, PHOTOS):
        graph.append(
            f"[{last}][v{number}]xfade=transition=fade:duration={DISSOLVE_S}:offset={number * EACH_S}[x{number}]"
        )
        last = f"x{number}"
    font = Face("Spectral", 400, False).path
    fade = "if(lt(t,0.5),0,if(lt(t,1.5),t-0.5,if(lt(t,3),1,if(lt(t,4),4-t,0))))"
    graph.append(
        f"[{last}]drawtext=fontfile={font}:text='The winders’ "
        f"album':fontsize=72:fontcolor=white:x=(w-tw)/2:y=323:alpha='{fade}':enable='lt(t,4)'[out]"
    )
    sound = ["-stream_loop", "-1", "-i", str(folder / "music.wav")]
    command = [
        "ffmpeg",
        "-y",
        "-v",
        "error",
        *words,
        *sound,
        "-filter_complex",
        ";".join(graph),
        "-map",
        "[out]",
        "-map",
        f"{PHOTOS}:a",
    ]
    command += [
        "-r",
        str(RATE),
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
        "-t",
        str(length),
    ]
    command += ["-colorspace", "bt709", "-color_range", "tv", str(folder / "theirs.mp4")]
    start = time.perf_counter()
    subprocess.run(command, check=True)
    return time.perf_counter() - start


def luma_psnr_db(folder: Path, ours_name: str) -> float:
    """The mean PSNR of the luma of both films, frame by frame, our long frames repeated."""
    graph = f"[0:v]fps={RATE},format=yuv420p[a];[1:v]fps={RATE},format=yuv420p[b];[a][b]psnr"
    command = [
        "ffmpeg",
        "-v",
        "info",
        "-i",
        str(folder / ours_name),
        "-i",
        str(folder / "theirs.mp4"),
        "-filter_complex",
        graph,
        "-f",
        "null",
        "-",
    ]
    said = subprocess.run(command, capture_output=True, text=True).stderr
    return float(re.findall(r"PSNR y:([\d.inf]+)", said)[-1])


def exact(folder: Path, name: str) -> str:
    """Whether all timestamps are whole frames, and by how many ms picture and sound differ in length."""
    with av.open(str(folder / name)) as container:
        times = [frame.pts * frame.time_base * RATE for frame in container.decode(video=0)]
    with av.open(str(folder / name)) as container:
        samples = sum(frame.samples for frame in container.decode(audio=0))
    whole = all(Fraction(time).denominator == 1 for time in times)
    return f"{'yes' if whole else 'no'}, {samples / 48 - float(times[-1] + 1) * 1000 / RATE:+.0f} ms"


def measure() -> Iterator[Line]:
    folder = Path(tempfile.mkdtemp(prefix="ritornel-bench-"))
    try:
        make_material(folder)
        (folder / "short.json").write_bytes(to_json(album()))
        (folder / "long.json").write_bytes(to_json(album(40, 20)))
        base = theirs(folder)
        yield "ffmpeg's command line", f"{base:.1f} s", "the baseline"
        sparse, memory = ours(folder, "short.json", "ours.mp4", "sparse")
        yield "film, only what moves", f"{sparse:.1f} s, {sparse / base:.2f}", "at most 0.20"
        constant, _ = ours(folder, "short.json", "constant.mp4", "constant")
        yield "film, constant rate", f"{constant:.1f} s, {constant / base:.2f}", "at most 0.40"
        yield "luma PSNR of the two", f"{luma_psnr_db(folder, 'constant.mp4'):.1f} dB", "at least 38 dB"
        yield "timestamps exact, sound longer than picture by", exact(folder, "ours.mp4"), "yes, a packet at most"
        yield "peak memory", f"{memory:.0f} MB", "at most 400 MB"
        _, long_memory = ours(folder, "long.json", "long.mp4", "sparse")
        yield "peak memory, ten times longer (40 photographs, 20 s each)", f"{long_memory:.0f} MB", "the same"
    finally:
        shutil.rmtree(folder, ignore_errors=True)
