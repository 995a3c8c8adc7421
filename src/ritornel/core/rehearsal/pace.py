"""How a run stands against the plan, the self-running schedule. static/ritornel/ui/pace.js has the same functions."""

ON_TEMPO_MS = 1500
"""A slip shorter than this is not worth a word."""


def slip_ms(start_ms: int, length_ms: int, on_slide_ms: int, elapsed_ms: int) -> int:
    """How far the run is behind the plan (negative: ahead), on a slide that the plan starts at `start_ms` and shows for `length_ms`.

    Within its planned length a slide keeps the slip it was reached with; staying longer adds to it. Reached at 8 000 instead of 6 000 and
    3 000 in, of 10 800: 2 000 behind. Then 12 000 in: 2 000 + 1 200.
    """
    return elapsed_ms - (start_ms + min(on_slide_ms, length_ms))


def pace_words(slip: int) -> str:
    """The slip in words: `On tempo`, `0:02 behind plan`, `1:05 ahead of plan`. Seconds are cut."""
    if abs(slip) < ON_TEMPO_MS:
        return "On tempo"
    minutes, seconds = divmod(abs(slip) // 1000, 60)
    return f"{minutes}:{seconds:02d} {'behind plan' if slip > 0 else 'ahead of plan'}"
