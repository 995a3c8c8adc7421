"""Sounds that begin at an instant: voices, clips, and the sounds of builds and transitions."""

import msgspec

from ritornel.core.time.counts import ON_SLIDE

EDGE_MS = 5
"""What begins or ends in the middle of a sound fades for so long, so that it does not click."""


class SoundTime(msgspec.Struct, frozen=True, kw_only=True):
    """A sound on the show's clock: its asset from `in_ms` on, for `lasts_ms`.

    It belongs to shown slide number `index`, on whose clock it begins at `offset_ms`; for a build's sound that counts
    from its `beat`, if it has one. One that `loops` repeats without a pause: its first `pass_ms` from `in_ms` on, or,
    where that is 0, all of it. It fades at its ends. Live, the next press cuts off one that `ends_with_beat`.
    """

    id: str
    asset_id: str
    start_ms: int
    in_ms: int
    lasts_ms: int
    gain_db: float
    index: int
    offset_ms: int
    beat: int = ON_SLIDE
    loops: bool = False
    pass_ms: int = 0
    fade_in_ms: int = 0
    fade_out_ms: int = 0
    ends_with_beat: bool = False

    @property
    def end_ms(self) -> int:
        return self.start_ms + self.lasts_ms
