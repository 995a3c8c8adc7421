"""How long reading and speaking take. These are estimates, and are always called so (domain: estimates)."""

import msgspec

from ritornel.core.document.objects import TextHolder
from ritornel.core.document.show import Slide
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.time.milliseconds import round_half_up

READING_MS, WORDS_PER_S, SPOKEN_PER_S = 1500, 3.0, 2.2


def words_in(text: str) -> int:
    """The number of words, divided by white space.

    >>> words_in("Seventy-eight turns,  every evening.")
    4
    """
    return len(text.split())


def reading_ms(slide: Slide) -> int:
    """The time to read the slide: 1.5 s and a third of a second a word; 0 without text.

    27 words take 10 500 ms.
    """
    words = sum(words_in(p.text) for item in slide.objects if isinstance(item, TextHolder) for p in item.paragraphs)
    return round_half_up(READING_MS + words * 1000 / WORDS_PER_S) if words else 0


def speaking_ms(slide: Slide) -> int:
    """The time to speak the notes, at 2.2 words a second."""
    return round_half_up(words_in(slide.notes) * 1000 / SPOKEN_PER_S)


class ReadingTime(msgspec.Struct, frozen=True):
    """The time to read the slide, the time it is there to be read, and the length it would need.

    Reading begins when the slide is there; what arrives later is read when it arrives.
    """

    needs_ms: int
    there_ms: int
    length_ms: int

    @property
    def is_short(self) -> bool:
        """Whether the slide ends before its text can be read."""
        return self.there_ms < self.needs_ms


def reading_time(slide: Slide, times: SlideSchedule) -> ReadingTime:
    """The slide's reading time, compared with its schedule."""
    needs_ms = reading_ms(slide)
    return ReadingTime(needs_ms, times.length_ms - times.transition_ms, times.transition_ms + needs_ms)
