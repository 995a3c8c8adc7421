"""How a run compares with the plan, the self-running schedule. static/ritornel/ui/pace.js has the same functions."""

import re

ON_TEMPO_MS = 1500
"""A slip shorter than this is not worth a word."""


def slip_ms(start_ms: int, length_ms: int, on_slide_ms: int, elapsed_ms: int) -> int:
    """How far the run is behind the plan (negative: ahead), on a slide that the plan starts at `start_ms` and shows for
    `length_ms`.

    Within its planned length a slide keeps the slip it began with; staying longer adds to it. Reached at 8 000 instead
    of 6 000 and 3 000 in, of 10 800: 2 000 behind. Then 12 000 in: 2 000 + 1 200.
    """
    return elapsed_ms - (start_ms + min(on_slide_ms, length_ms))


def pace_words(slip: int) -> str:
    """The slip in words: `On tempo`, `0:02 behind plan`, `1:05 ahead of plan`. Seconds are cut."""
    if abs(slip) < ON_TEMPO_MS:
        return "On tempo"
    minutes, seconds = divmod(abs(slip) // 1000, 60)
    return f"{minutes}:{seconds:02d} {'behind plan' if slip > 0 else 'ahead of plan'}"


SOON_MS = 120_000
"""From here on the end of a slot is warned of."""


def ends_after_ms(length_ms: int, start_ms: int, slide_length_ms: int, on_slide_ms: int, elapsed_ms: int) -> int:
    """When the run will end, counted from its start, if it keeps to the plan from here on: the planned time that is not
    yet played is added.

    Planned 60 000; 9 000 in, 3 000 into a slide that is planned from 6 000 to 16 000: 60 000. The same 12 000 into it,
    at 18 000: 62 000.
    """
    return length_ms + slip_ms(start_ms, slide_length_ms, on_slide_ms, elapsed_ms)


DAY_MIN = 24 * 60
_LENGTH = re.compile(r"^(?:(\d{1,2})\s*(?:h|hours?))?\s*(?:(\d{1,3})\s*(?:m|min|minutes?)?)?$")
_CLOCK = re.compile(r"^(\d{1,2})(?:[:.](\d{2}))?\s*(am|pm|a\.m\.|p\.m\.)?$")


def parse_slot(text: str, now_min: int) -> int | None:
    """When a slot ends, in minutes from now, from typed text: a length, or a time of day in 24 hours or with am and pm.

    None for any other text. A time is the nearest one: just over, or to come. `now_min` is the minute of the day.

    >>> [parse_slot(text, 14 * 60) for text in ("20 min", "1 h 30", "45", "14:25", "2:25 pm", "13:50", "soon")]
    [20, 90, 45, 25, 25, -10, None]
    """
    words = " ".join(text.lower().split())
    clock = _CLOCK.match(words)
    if clock and (clock[2] or clock[3]):
        hours, minutes = int(clock[1]), int(clock[2] or 0)
        if clock[3]:
            if not 1 <= hours <= 12:
                return None
            hours = hours % 12 + (12 if clock[3].startswith("p") else 0)
        if hours > 23 or minutes > 59:
            return None
        left = (hours * 60 + minutes - now_min) % DAY_MIN
        return left - DAY_MIN if left > DAY_MIN // 2 else left
    length = _LENGTH.match(words)
    if not words or length is None:
        return None
    left = int(length[1] or 0) * 60 + int(length[2] or 0)
    return left or None


def slot_words(left_ms: int) -> str:
    """The rest of a slot, in words: `in 14:50`, from two minutes on `2:00 left`, past its end `0:30 over`.

    Seconds are cut.
    """
    minutes, seconds = divmod(abs(left_ms) // 1000, 60)
    told = f"{minutes}:{seconds:02d}"
    if left_ms < 0:
        return f"{told} over"
    return f"{told} left" if left_ms <= SOON_MS else f"in {told}"
