"""Captions of voices from the notes, for presenters who read their notes aloud.

Their times are estimates: the notes are spread over the voice by the number of letters, as in speech at an even pace.
"""

import re

from ritornel.core.document.objects import Caption, Clip
from ritornel.core.document.show import Show, Slide
from ritornel.core.time.milliseconds import round_half_up

MOST_LETTERS = 84
"""So long is a caption at most: two lines of 42 letters (BBC Subtitle Guidelines, 2022, section 6)."""
_SENTENCE = re.compile(r"(?<=[.!?…。！？])\s+|\s*\n\s*")
_CLAUSE = re.compile(r"(?<=[,;:–—、])\s+")


def _join_parts(parts: list[str]) -> list[str]:
    """The parts in order, joined as long as they fit into one caption."""
    found: list[str] = []
    for part in parts:
        if found and len(found[-1]) + 1 + len(part) <= MOST_LETTERS:
            found[-1] = f"{found[-1]} {part}"
        else:
            found.append(part)
    return found


def _pieces(word: str) -> list[str]:
    return [word[at : at + MOST_LETTERS] for at in range(0, len(word), MOST_LETTERS)]


def caption_texts(notes: str) -> tuple[str, ...]:
    """The notes in captions that can be read at a glance: sentences; long ones are divided at clauses, and long clauses
    between words. A word longer than a caption is cut.

    >>> caption_texts("It ticks. It strikes the hour.")
    ('It ticks.', 'It strikes the hour.')
    """
    found: list[str] = []
    for sentence in _SENTENCE.split(notes):
        text = " ".join(sentence.split())
        if len(text) <= MOST_LETTERS:
            found.append(text)
            continue
        for clause in _join_parts(_CLAUSE.split(text)):
            found.extend(_join_parts([piece for word in clause.split() for piece in _pieces(word)]))
    return tuple(text for text in found if text)


def has_captions(show: Show) -> bool:
    """Whether the show has any captions: of a clip, or from the notes of a voice."""
    spoken = show.notes_as_captions and any(slide.voice and caption_texts(slide.notes) for slide in show.slides)
    return spoken or any(isinstance(item, Clip) and item.captions for slide in show.slides for item in slide.objects)


def spoken_captions(slide: Slide) -> tuple[Caption, ...]:
    """The captions of the slide's voice, on the slide's clock; none without a voice or notes.

    “It ticks. It strikes the hour.” (9 and 20 letters) over a voice of 2 900 ms from 300 ms: 2 900 · 9 / 29 = 900, so
    the first is read from 300 to 1 200 and the second to 3 200. Instants are rounded half up.
    """
    texts = caption_texts(slide.notes) if slide.voice else ()
    if slide.voice is None or not texts:
        return ()
    letters = sum(map(len, texts))
    ends, before = [slide.voice.offset_ms], 0
    for text in texts:
        before += len(text)
        ends.append(slide.voice.offset_ms + round_half_up(slide.voice.lasts_ms * before / letters))
    return tuple(
        Caption(start, end, text) for start, end, text in zip(ends, ends[1:], texts, strict=False) if start < end
    )
