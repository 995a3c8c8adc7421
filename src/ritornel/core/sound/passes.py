"""Music laid out in time: passes, crossfades and fades, as breakpoints for browser and film."""

import msgspec

from ritornel.core.sound.ducking import Point


class Pass(msgspec.Struct, frozen=True, array_like=True):
    """One run of the sound, from its beginning.

    It fades in over `fade_in_ms`, and out over `fade_out_ms` ending `full_ms` after its start; where the span ends
    first (`end_ms`) the pass is cut there.
    """

    start_ms: int
    end_ms: int
    fade_in_ms: int
    fade_out_ms: int
    full_ms: int


class MusicTime(msgspec.Struct, frozen=True, kw_only=True):
    """A span in time. All fades are equal-power; `runs_on` is true for a looping span over the whole of a looping show.

    Live, the span sounds from the 0 (plus `offset_ms`) of shown slide `first` to the end of shown slide `last`, in
    passes of `lasts_ms` that begin every `period_ms` (0: a single pass). `ducking` are the breakpoints of its level
    under voices; live, where voices cannot be foreseen, it sinks by `duck_db` when one begins.
    """

    span_id: str
    asset_id: str
    start_ms: int
    end_ms: int
    gain_db: float
    fade_in_ms: int
    fade_out_ms: int
    passes: tuple[Pass, ...]
    first: int
    last: int
    offset_ms: int
    lasts_ms: int
    period_ms: int
    runs_on: bool = False
    ducking: tuple[Point, ...] = ()
    duck_db: float = 0.0


def shrink_fades(fade_in_ms: int, fade_out_ms: int, room_ms: int) -> tuple[int, int]:
    """Both fades, unchanged where they fit; else shrunk in proportion so that together they fill the room."""
    both = fade_in_ms + fade_out_ms
    if both <= room_ms:
        return fade_in_ms, fade_out_ms
    first = fade_in_ms * room_ms // both
    return first, room_ms - first


def passes_of(start_ms: int, end_ms: int, lasts_ms: int, crossfade_ms: int, loops: bool) -> tuple[Pass, ...]:
    """The passes of a sound of `lasts_ms` between two instants.

    Vector B: 12 000 ms with a crossfade of 500 from 0 to 32 400 starts at 0, 11 500 and 23 000. A crossfade is at most
    half a pass.
    """
    if lasts_ms <= 0 or end_ms <= start_ms:
        return ()
    if not loops:
        return (Pass(start_ms, min(end_ms, start_ms + lasts_ms), 0, 0, lasts_ms),)
    crossfade_ms = min(crossfade_ms, lasts_ms // 2)
    period_ms = lasts_ms - crossfade_ms
    starts = range(start_ms, end_ms, period_ms)
    return tuple(
        Pass(
            at,
            min(end_ms, at + lasts_ms),
            0 if number == 0 else crossfade_ms,
            crossfade_ms if at + period_ms < end_ms else 0,
            lasts_ms,
        )
        for number, at in enumerate(starts)
    )
