"""“The pendulum, watched”: a short lesson around a clip.

`python -m ritornel.demo.pendulum` draws the clip and its ticks again.
"""

import math
from fractions import Fraction
from functools import cache
from typing import Any

import av
import numpy as np
import skia
from av.video.reformatter import ColorRange, Colorspace

from ritornel.core.document.layouts import box_of, layout_named, look_of
from ritornel.core.document.objects import PLAYS, Box, Caption, Clip, Paragraph, Text, TextRun
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceOnCue,
    Asset,
    Build,
    Follows,
    Frame,
    OnCue,
    Show,
    Slide,
    Transition,
)
from ritornel.core.document.theme import Theme
from ritornel.core.formats.media import Limits, asset_from, probe_medium
from ritornel.demo.drawing import MEDIA, dial, paint, shade
from ritornel.sounds import AUTHOR, LICENCE

FILE = MEDIA / "pendulum.mp4"
WIDTH, HEIGHT, RATE_FPS, LASTS_S = 640, 360, 25, 12
PERIOD_S = 2.0
SAID = (
    Caption(600, 3400, "The pendulum of the tower clock:\none swing to and fro in two seconds."),
    Caption(4000, 6800, "Its rod is a metre long, give or take a hair."),
    Caption(7400, 10_800, "[tick]  One tooth goes by at every end of its way."),
)
SAMPLES_HZ = 48_000


@cache
def clip_medium() -> tuple[Asset, bytes]:
    """The clip on the shelf, with its bytes."""
    data = FILE.read_bytes()
    words = "A pendulum swings under the tower clock, once in two seconds"
    return asset_from(
        probe_medium(data, "pendulum.mp4", Limits()),
        "pendulum",
        "The pendulum",
        author=AUTHOR,
        licence=LICENCE,
        alternative=words,
    ), data


def _heading(slide_id: str, words: str, frame: Frame, theme: Theme) -> Text:
    place = layout_named("text and picture").places[0]
    lines = (Paragraph(f"{slide_id}-h1", (TextRun(words),)),)
    return Text(
        f"{slide_id}-h", words, box_of(place, frame), place=place.name, paragraphs=lines, **look_of(place, theme, frame)
    )


def pendulum(show_id: str = "pendulum") -> Show:
    """The show: the clip whole, with captions; a stretch of it beside questions, on cue and without its sound; and at
    half its speed as a quiet ending.
    """
    frame, theme = Frame(), Theme()
    asset, _ = clip_medium()
    full = Box(0, 0, 1280, 720)
    whole = Clip(
        "whole",
        "The pendulum",
        full,
        asset.id,
        out_ms=asset.lasts_ms,
        fade_in_ms=300,
        fade_out_ms=1200,
        captions=SAID,
        alternative=asset.alternative,
    )
    first = Slide(
        "whole-s",
        "Watch it swing",
        objects=(whole,),
        order=(Build(id="whole-b", object_id="whole", effect=PLAYS, starts=Follows()),),
        advance=AdvanceAfter(0),
        transition=Transition("dissolve", 800),
        notes="Say nothing. Let them count.",
    )
    where = layout_named("text and picture").places[2]
    beside = Clip(
        "beside",
        "Two swings",
        box_of(where, frame),
        asset.id,
        in_ms=4000,
        out_ms=8000,
        poster_ms=4500,
        muted=True,
        corner_px=12,
        place=where.name,
        alternative=asset.alternative,
    )
    questions = ("How many swings in a minute?", "What would a longer rod do?", "Who feels the tick in the floor?")
    place = layout_named("text and picture").places[1]
    lines = tuple(Paragraph(f"q{number}", (TextRun(words),), "numbers") for number, words in enumerate(questions, 1))
    text = Text(
        "questions",
        "Questions",
        box_of(place, frame),
        place=place.name,
        paragraphs=lines,
        **look_of(place, theme, frame),
    )
    second = Slide(
        "ask-s",
        "Three questions",
        objects=(_heading("ask", "Count with it", frame, theme), text, beside),
        layout="text and picture",
        order=(
            Build(id="beside-b", object_id="beside", effect=PLAYS, starts=OnCue("swing", 1500)),
            *(
                Build(
                    id=f"q{number}-b",
                    object_id="questions",
                    effect="enters rise",
                    starts=OnCue(f"ask-{number}", 2500),
                    part=f"q{number}",
                )
                for number in (1, 2, 3)
            ),
        ),
        advance=AdvanceOnCue("on", 4000),
        transition=Transition("push", 700),
        notes="Play it once more if they ask.",
    )
    again: dict[str, Any] = {"repeats": True, "holds": False, "gain_db": -8.0, "rate_pct": 50}
    round_it = Clip(
        "round", "On and on", full, asset.id, in_ms=2000, out_ms=4000, alternative=asset.alternative, **again
    )
    last = Slide(
        "on-s",
        "On and on",
        objects=(round_it,),
        order=(Build(id="round-b", object_id="round", effect=PLAYS, starts=Follows()),),
        advance=AdvanceAfter(7000),
        transition=Transition("push", 1000),
    )
    return Show(show_id, "The pendulum, watched", frame, slides=(first, second, last), assets=(asset,), end="black")


def _frame(seconds: float) -> skia.Image:
    """The pendulum at an instant: a rod under a dial, its way lit on the wall behind it."""
    surface = skia.Surface(WIDTH, HEIGHT)
    with surface as canvas:
        canvas.drawRect(skia.Rect.MakeWH(WIDTH, HEIGHT), shade(0x22303A, 0x10181D, 0, HEIGHT))
        dial(canvas, WIDTH / 2, 70, 44, 12.25 + seconds / 3600)
        angle = math.radians(14) * math.sin(math.tau * seconds / PERIOD_S)
        x, y = WIDTH / 2 + 210 * math.sin(angle), 96 + 210 * math.cos(angle)
        canvas.drawLine(WIDTH / 2, 96, x, y, paint(0xC9A766, 5))
        canvas.drawCircle(x, y, 26, paint(0x8A6A2C))
        canvas.drawCircle(x - 6, y - 7, 12, paint(0xE3C788))
        for step in range(-14, 15, 7):
            tick = math.radians(step)
            canvas.drawCircle(
                WIDTH / 2 + 252 * math.sin(tick), 96 + 252 * math.cos(tick), 3, paint(0x8FB2AE if step else 0xF2A9CB)
            )
    return surface.makeImageSnapshot()


def _ticks() -> np.ndarray:
    """A tick at every passing of the middle, one lower than the other; shape (samples, 2)."""
    count = SAMPLES_HZ * LASTS_S
    sound = np.zeros(count, dtype=np.float32)
    stroke = np.arange(SAMPLES_HZ // 8) / SAMPLES_HZ
    for number in range(int(LASTS_S / PERIOD_S * 2)):
        pitch = 1900 if number % 2 else 1400
        tick = 0.5 * np.exp(-stroke * 70) * np.sin(math.tau * pitch * stroke) + 0.2 * np.exp(-stroke * 30) * np.sin(
            math.tau * 320 * stroke
        )
        first = int(number * PERIOD_S / 2 * SAMPLES_HZ)
        room = min(len(tick), count - first)
        sound[first : first + room] += tick[:room].astype(np.float32)
    return np.repeat(sound[:, None], 2, axis=1)


def draw() -> None:
    """Makes the clip."""
    with av.open(str(FILE), "w", options={"movflags": "faststart"}) as container:
        video = container.add_stream("libx264", rate=RATE_FPS, options={"preset": "veryslow", "crf": "27", "g": "50"})
        video.width, video.height, video.pix_fmt = WIDTH, HEIGHT, "yuv420p"
        video.codec_context.colorspace, video.codec_context.color_range = Colorspace.ITU709, ColorRange.MPEG
        video.codec_context.color_primaries = video.codec_context.color_trc = 1
        audio = container.add_stream("aac", rate=SAMPLES_HZ, layout="stereo")
        audio.bit_rate = 64_000
        for number in range(RATE_FPS * LASTS_S):
            pixels = np.asarray(_frame(number / RATE_FPS).toarray(colorType=skia.kRGBA_8888_ColorType))[:, :, :3]
            frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(pixels), format="rgb24")
            frame = frame.reformat(format="yuv420p", dst_colorspace=Colorspace.ITU709, dst_color_range=ColorRange.MPEG)
            frame.pts, frame.time_base = number, Fraction(1, RATE_FPS)
            container.mux(video.encode(frame))
        container.mux(video.encode(None))
        samples = _ticks()
        for first in range(0, len(samples), 1024):
            block = np.ascontiguousarray(samples[first : first + 1024].reshape(1, -1))
            heard = av.AudioFrame.from_ndarray(block, format="flt", layout="stereo")
            heard.sample_rate, heard.pts, heard.time_base = SAMPLES_HZ, first, Fraction(1, SAMPLES_HZ)
            container.mux(audio.encode(heard))
        container.mux(audio.encode(None))


if __name__ == "__main__":
    draw()
