"""A film of ten minutes, 40 slides with voices and music, in segments, against ffmpeg's command line doing the same in
one filter graph.
"""

import os
import shutil
import subprocess
import sys
import tempfile
import threading
import time
import wave
from collections.abc import Iterator
from pathlib import Path

import msgspec
import numpy as np

from bench.film import DISSOLVE_S, PHOTOS, RATE, Line, album, exact, held, make_material
from ritornel.core.document import Asset, Box, Paragraph, Show, Text, TextRun
from ritornel.core.document.decoding import to_json
from ritornel.core.document.show import AdvanceAfter, Voice

SLIDES, EACH_S, VOICE_S = 40, 15, 9


def make_voice(folder: Path) -> None:
    """Nine seconds that rise and fall as speech does."""
    t = np.arange(48_000 * VOICE_S) / 48_000
    tone = np.sin(2 * np.pi * 170 * t) * np.clip(np.sin(2 * np.pi * 2.1 * t), 0, 1) * 0.5
    with wave.open(str(folder / "voice.wav"), "wb") as sound:
        sound.setnchannels(1)
        sound.setsampwidth(2)
        sound.setframerate(48_000)
        sound.writeframes((tone * 32767).astype("<i2").tobytes())


def narrated() -> Show:
    """The album with a voice on each slide, under which the music sinks."""
    show = album(SLIDES, EACH_S)
    voice = Asset("v", "Voice", f"{98:064x}", "audio/wav", size_bytes=1, lasts_ms=VOICE_S * 1000)
    speaks = {"voice": Voice("v", VOICE_S * 1000, offset_ms=2000), "advance": AdvanceAfter(EACH_S * 1000)}
    slides = tuple(msgspec.structs.replace(slide, **speaks) for slide in show.slides)
    return msgspec.structs.replace(show, slides=slides, assets=(*show.assets, voice))


def worded(show: Show) -> Show:
    """The show with a line of words on slide 7."""
    line = Text(
        "line",
        "Line",
        Box(100, 600, 900, 80),
        paragraphs=(Paragraph("p", (TextRun("The pallets"),)),),
        size_px=40,
        colour="#ffffff",
    )
    slides = list(show.slides)
    slides[6] = msgspec.structs.replace(slides[6], objects=(*slides[6].objects, line))
    return msgspec.structs.replace(show, slides=tuple(slides))


FILM = """
import sys
from fractions import Fraction
from pathlib import Path
import msgspec
from ritornel.core.document import Show
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.process_pool import FilmSource
from ritornel.core.render.kept_segments import SegmentStore
from ritornel.core.render.segmented_film import write_segmented_film
if __name__ == "__main__":
    folder = Path(sys.argv[1])
    show = msgspec.json.decode((folder / "show.json").read_bytes(), type=Show)
    names = {98: "voice.wav", 99: "music.wav"}
    media = {a.sha256: str(folder / names.get(int(a.sha256, 16), f"{int(a.sha256, 16):02d}.jpg")) for a in show.assets}
    store = SegmentStore(folder / "store")
    write_segmented_film(FilmSource(show, FilmOrder(1280, 720, Fraction(30)), media), folder / "ours.mp4", folder / "parts", store=store)
"""


def _tree(root: int) -> list[int]:
    """The process and all that stem from it."""
    parents: dict[int, int] = {}
    for status in Path("/proc").glob("[0-9]*/stat"):
        try:
            parents[int(status.parent.name)] = int(status.read_text().rpartition(")")[2].split()[1])
        except OSError:
            continue
    found, grown = {root}, True
    while grown:
        more = {pid for pid, parent in parents.items() if parent in found} - found
        found, grown = found | more, bool(more)
    return list(found)


def _shared_kb(pid: int) -> int:
    """What a process takes, memory that several share counted in proportion (PSS)."""
    try:
        return int(
            next(
                line for line in Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines() if line.startswith("Pss:")
            ).split()[1]
        )
    except (OSError, StopIteration):
        return 0


def ours(folder: Path) -> tuple[float, float, float]:
    """Seconds, and at the peak the MB of all processes together and of the largest."""
    (folder / "maker.py").write_text(FILM)
    start = time.perf_counter()
    maker = subprocess.Popen(
        [sys.executable, str(folder / "maker.py"), str(folder)],
        env={**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)},
    )
    peak = [0, 0]
    over = threading.Event()

    def watch() -> None:
        while not over.wait(0.5):
            each = [_shared_kb(pid) for pid in _tree(maker.pid)]
            peak[0], peak[1] = max(peak[0], sum(each)), max(peak[1], max(each, default=0))

    watcher = threading.Thread(target=watch)
    watcher.start()
    maker.wait()
    took = time.perf_counter() - start
    over.set()
    watcher.join()
    return took, peak[0] / 1024, peak[1] / 1024


def theirs(folder: Path) -> float:
    """ffmpeg, the same in one filter graph: music sinks under the voices by a compressor."""
    words: list[str] = []
    graph: list[str] = []
    for number in range(SLIDES):
        shown = EACH_S + (DISSOLVE_S if number + 1 < SLIDES else 0)
        words += ["-i", str(folder / f"{number % PHOTOS:02d}.jpg")]
        once = "scale=1280:854:out_color_matrix=bt709:out_range=tv,crop=1280:720,format=yuv420p,setsar=1"
        graph.append(f"[{number}:v]{once},{held(shown)}[v{number}]")
    last = "v0"
    for number in range(1, SLIDES):
        graph.append(
            f"[{last}][v{number}]xfade=transition=fade:duration={DISSOLVE_S}:offset={number * EACH_S}[x{number}]"
        )
        last = f"x{number}"
    words += [
        "-stream_loop",
        "-1",
        "-i",
        str(folder / "music.wav"),
        "-stream_loop",
        "-1",
        "-i",
        str(folder / "voice.wav"),
    ]
    graph.append(f"[{SLIDES + 1}:a]aresample=48000,asplit[said][key]")
    graph.append(
        f"[{SLIDES}:a][key]sidechaincompress=threshold=0.02:ratio=4:attack=300:release=600[low];[low][said]amix=inputs=2[sound]"
    )
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
        "[sound]",
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
        str(SLIDES * EACH_S),
    ]
    start = time.perf_counter()
    subprocess.run([*command, str(folder / "theirs.mp4")], check=True)
    return time.perf_counter() - start


def measure() -> Iterator[Line]:
    folder = Path(tempfile.mkdtemp(prefix="ritornel-bench-"))
    try:
        make_material(folder)
        make_voice(folder)
        (folder / "show.json").write_bytes(to_json(narrated()))
        took, together, largest = ours(folder)
        yield "film of ten minutes, 40 slides, voices, music, in segments", f"{took:.1f} s", ""
        yield "timestamps exact, sound longer than picture by", exact(folder, "ours.mp4"), "yes, a packet at most"
        (folder / "show.json").write_bytes(to_json(worded(narrated())))
        again, *_ = ours(folder)
        yield "the same once more, with other words on slide 7", f"{again:.1f} s", "at most 3 s"
        yield (
            ("peak memory of its processes together; of the largest"),
            f"{together:.0f} MB; {largest:.0f} MB",
            "at most 400 MB",
        )
        base = theirs(folder)
        yield "ffmpeg's command line", f"{base:.1f} s", "the baseline"
        yield "the film against it", f"{took / base:.2f}", "at most 0.10"
    finally:
        shutil.rmtree(folder, ignore_errors=True)
