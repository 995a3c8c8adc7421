"""A show as text, for people who read it instead of watching: the text of its slides and what is spoken."""

import msgspec

from ritornel.core.schedule.captions import compile_captions
from ritornel.core.schedule.performance import Performance
from ritornel.core.schedule.words import words_on


class TranscriptSlide(msgspec.Struct, frozen=True):
    """A slide with its number among those shown (from 1), its start, its text line by line, and what its clips say."""

    number: int
    name: str
    starts_ms: int
    words: tuple[str, ...]
    spoken: tuple[str, ...]


def transcript_of(performance: Performance) -> tuple[TranscriptSlide, ...]:
    """The slides in the order in which they are shown.

    A caption belongs to the slide on which it begins. Where a slide's name is one of its lines, such as its heading, it
    is written once.
    """
    captions = compile_captions(performance)
    found = []
    for index, (staged, start) in enumerate(zip(performance.slides, performance.schedule.starts_ms, strict=True)):
        end = start + performance.schedule.slides[index].length_ms
        lines = [line.strip() for line in words_on(staged.slide).split("\n") if line.strip()]
        name = staged.slide.name or (lines[0] if lines else "")
        lines = [line for line in lines if line != name]
        spoken = tuple(caption.text for caption in captions if start <= caption.start_ms < end)
        found.append(TranscriptSlide(index + 1, name, start, tuple(lines), spoken))
    return tuple(found)
