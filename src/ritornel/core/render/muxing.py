"""Joins a film's encoded pictures and sound into one file without encoding again."""

import contextlib
import heapq
from collections.abc import Callable, Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import msgspec
from av.packet import Packet
from av.stream import Disposition

from ritornel.core.containers import open_container
from ritornel.core.document.objects import Caption
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.languages import language_code
from ritornel.core.schedule.captions import compile_captions
from ritornel.core.schedule.performance import Performance

CLOCK = Fraction(1, 1000)


class Chapter(msgspec.Struct, frozen=True):
    """A named stretch of the film."""

    name: str
    start_ms: int
    end_ms: int


def chapters_of(performance: Performance) -> tuple[Chapter, ...]:
    """One chapter for each section, or without sections for each slide. Slides before the first section make a chapter
    with the name of the first of them. Slides of length 0 are left out.
    """
    schedule, slides = performance.schedule, performance.slides
    sections = any(staged.slide.opens_section for staged in slides)
    begins = [
        (
            start,
            staged.slide.opens_section
            if sections and staged.slide.opens_section
            else staged.slide.name or f"Slide {number + 1}",
        )
        for number, (start, staged) in enumerate(zip(schedule.starts_ms, slides, strict=True))
        if number == 0 or not sections or staged.slide.opens_section
    ]
    ends = [*(start for start, _ in begins[1:]), schedule.length_ms]
    return tuple(Chapter(name, start, end) for (start, name), end in zip(begins, ends, strict=True) if end > start)


def _packets(parts: Sequence[tuple[Path, Fraction]], kind: str, stream: Any) -> Iterator[tuple[Fraction, Any]]:
    """The packets of successive files, each file moved to its start, with their decoding times."""
    last: int | None = None
    for path, begins_s in parts:
        with open_container(path) as source:
            wanted = getattr(source.streams, kind)[0]
            for packet in source.demux(wanted):
                if packet.pts is None or packet.dts is None:
                    continue
                shift = round(begins_s / packet.time_base)
                packet.pts, packet.dts = packet.pts + shift, packet.dts + shift
                # A sound's encoder begins before 0; its times may not fall into the file before.
                if last is not None and packet.dts <= last:
                    packet.dts = last + 1
                last = packet.dts
                packet.stream = stream
                yield packet.dts * packet.time_base, packet


def _captions(captions: Sequence[Caption], stream: Any, webm: bool) -> Iterator[tuple[Fraction, Any]]:
    """The captions as packets of a track, with their decoding times. Timed text of MP4 begins with its length (3GPP TS
    26.245, 5.17); WebVTT in WebM is plain.
    """
    for caption in captions:
        words = caption.text.encode()
        packet = Packet(words if webm else len(words).to_bytes(2, "big") + words)
        packet.time_base, packet.stream = CLOCK, stream
        packet.pts = packet.dts = caption.start_ms
        packet.duration = caption.end_ms - caption.start_ms
        yield caption.start_ms * CLOCK, packet


def _put_poster(out: Any, poster: bytes, order: FilmOrder) -> Callable[[], None]:
    """Adds a track for the poster; the returned function writes it."""
    stream = out.add_mux_stream("mjpeg", width=order.width_px, height=order.height_px)
    stream.disposition = Disposition.attached_pic

    def write() -> None:
        packet = Packet(poster)
        packet.stream, packet.time_base, packet.pts, packet.dts = stream, CLOCK, 0, 0
        out.mux(packet)

    return write


def join_film(
    pictures: Sequence[tuple[Path, Fraction]],
    sound: Path | None,
    target: Path,
    performance: Performance,
    order: FilmOrder,
    poster: bytes = b"",
) -> None:
    """Joins files of pictures, each with its start in s, and the sound into a film: packets stay as they are, in
    decoding order. An .mp4 can play while it still downloads. The film has the show's title, its sections or slides as
    chapters, and the captions as a track that players can show. An .mp4 has a poster; WebM has no place for one.
    """
    webm = target.suffix == ".webm"
    options = {} if webm else {"movflags": "+faststart"}
    with (
        av.open(str(target), "w", format="webm" if webm else "mp4", options=options) as out,
        contextlib.ExitStack() as opened,
    ):
        out.metadata["title"] = performance.title
        out.set_chapters(
            [
                {
                    "id": number,
                    "start": one.start_ms,
                    "end": one.end_ms,
                    "time_base": Fraction(1, 1000),
                    "metadata": {"title": one.name},
                }
                for number, one in enumerate(chapters_of(performance))
            ]
        )
        first = opened.enter_context(open_container(pictures[0][0]))
        language = language_code(performance.language)

        def spoken(stream: Any) -> Any:
            stream.metadata["language"] = language
            return stream

        merged = [_packets(pictures, "video", spoken(out.add_stream_from_template(first.streams.video[0])))]
        if sound is not None:
            heard = opened.enter_context(open_container(sound))
            merged.append(
                _packets([(sound, Fraction(0))], "audio", spoken(out.add_stream_from_template(heard.streams.audio[0])))
            )
        if captions := compile_captions(performance):
            merged.append(_captions(captions, spoken(out.add_mux_stream("webvtt" if webm else "mov_text")), webm))
        write_poster = _put_poster(out, poster, order) if poster and not webm else None
        if write_poster is not None:
            write_poster()
        for _, packet in heapq.merge(*merged, key=lambda entry: entry[0]):
            out.mux(packet)
