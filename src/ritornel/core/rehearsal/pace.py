"""How a run stands against the plan, the self-running schedule. static/ritornel/ui/pace.js has the same functions."""

ON_TEMPO_MS = 1500
"""A slip shorter than this is not worth a word."""


def slip_ms(start_ms: int, length_ms: int, on_slide_ms: int, elapsed_ms: int) -> int:
    """How far the run is behind the plan (negative: ahead), on a slide that the plan starts at `start_ms` and shows for
    `length_ms`.

    Within its planned length a slide keeps the slip it was reached with; staying longer adds to it. Reached at 8 000
    instead of 6 000 and 3 000 in, of 10 800: 2 000 behind. Then 12 000 in: 2 000 + 1 200.
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
    """When the run will end, counted from its start, if from here on it keeps to the plan: what is planned and not yet
    played comes on top.

    Planned 60 000; 9 000 in, 3 000 into a slide that is planned from 6 000 to 16 000: 60 000. The same 12 000 into it,
    at 18 000: 62 000.
    """
    return length_ms + slip_ms(start_ms, slide_length_ms, on_slide_ms, elapsed_ms)


def slot_words(left_ms: int) -> str:
    """What is left of a slot, in words:

    `in 14:50`, from two minutes on `2:00 left`, past its end `0:30 over`. Seconds are cut.
    """
    minutes, seconds = divmod(abs(left_ms) // 1000, 60)
    told = f"{minutes}:{seconds:02d}"
    if left_ms < 0:
        return f"{told} over"
    return f"{told} left" if left_ms <= SOON_MS else f"in {told}"
