"""Half-open spans of time."""

import msgspec


class Span(msgspec.Struct, frozen=True):
    """A span from `start_ms` up to, but without, `end_ms`. Empty where both are equal."""

    start_ms: int
    end_ms: int

    @property
    def length_ms(self) -> int:
        return self.end_ms - self.start_ms

    def holds(self, time_ms: int) -> bool:
        """Whether the instant lies inside."""
        return self.start_ms <= time_ms < self.end_ms
