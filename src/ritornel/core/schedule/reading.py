"""How long reading and speaking take: estimates, and always called so (domain: estimates)."""

import msgspec

from ritornel.core.document.objects import TextHolder
from ritornel.core.document.show import Slide
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.time.milliseconds import round_half_up

READING_MS, WORDS_PER_S, SPOKEN_PER_S = 1500, 3.0, 2.2


def words_in(text: str) -> int:
    """How many words there are between white space.

    >>> words_in("Seventy-eight turns,  every evening.")
    4
    """
    return len(text.split())


def reading_ms(slide: Slide) -> int:
    """What reading the slide takes: 1.5 s and a third of a second a word; nothing where there are no words.

    27 words take 10 500 ms.
    """
    words = sum(words_in(p.text) for item in slide.objects if isinstance(item, TextHolder) for p in item.paragraphs)
    return round_half_up(READING_MS + words * 1000 / WORDS_PER_S) if words else 0


def speaking_ms(slide: Slide) -> int:
    """What speaking the notes takes, at 2.2 words a second."""
    return round_half_up(words_in(slide.notes) * 1000 / SPOKEN_PER_S)


class ReadingTime(msgspec.Struct, frozen=True):
    """What reading a slide takes, for how long it is there to be read, and the length it would need.

    Reading begins when the slide is there; what comes later is read as it comes.
    """

    needs_ms: int
    there_ms: int
    length_ms: int

    @property
    def is_short(self) -> bool:
        """Whether the slide is gone before its words are read."""
        return self.there_ms < self.needs_ms


def reading_time(slide: Slide, times: SlideSchedule) -> ReadingTime:
    """The slide's reading against its schedule."""
    needs_ms = reading_ms(slide)
    return ReadingTime(needs_ms, times.length_ms - times.transition_ms, times.transition_ms + needs_ms)
