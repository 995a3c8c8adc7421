"""How often people may do things that can be abused: signing in, asking for links, sending mail.

The `limits` package counts, in memory by default, or in a store that several servers share (`RITORNEL_BRAKES`). Where
possible a limit is for a name and an address together, or for a mailbox, not for a network address alone: one person
must not lock out a whole office behind one address.
"""

import time
from functools import cache

import msgspec
from django.conf import settings
from limits import RateLimitItem, parse_many
from limits.storage import storage_from_string
from limits.strategies import MovingWindowRateLimiter

from ritornel.core.errors import RitornelError
from ritornel.core.wording import count_text


class TooOften(RitornelError):
    """Something was done too often; `wait_s` is the time to wait."""

    def __init__(self, message: str, wait_s: int) -> None:
        super().__init__(message)
        self.wait_s = wait_s


class Brake(msgspec.Struct, frozen=True):
    """What is counted, and how often it is allowed: `rates` in the notation of the limits package,
    "5/minute;30/hour".
    """

    name: str
    rates: str

    def _items(self) -> list[RateLimitItem]:
        return parse_many(self.rates)

    def wait_s(self, *who: object, times: int = 1) -> int:
        """The seconds to wait before it is allowed so many times; 0 when it is allowed now."""
        keys = (self.name, *map(str, who))
        late = [item for item in self._items() if not limiter().test(item, *keys, cost=times)]
        resets = [limiter().get_window_stats(item, *keys).reset_time - time.time() for item in late]
        return max((int(seconds) + 1 for seconds in resets), default=0)

    def count(self, *who: object, times: int = 1) -> None:
        """Counts one use."""
        for item in self._items():
            limiter().hit(item, self.name, *map(str, who), cost=times)

    def release(self, *who: object) -> None:
        """Resets the count."""
        for item in self._items():
            limiter().clear(item, self.name, *map(str, who))

    def apply(self, *who: object, words: str, times: int = 1) -> None:
        """Counts one use. Raises TooOften above the limit: `words` say what was not done."""
        wait = self.wait_s(*who, times=times)
        if wait:
            raise TooOften(f"{words} Try again in {wait_text(wait)}.", wait)
        self.count(*who, times=times)


@cache
def limiter() -> MovingWindowRateLimiter:
    """The limiter of this process."""
    return MovingWindowRateLimiter(storage_from_string(settings.BRAKES_STORE))


def wait_text(seconds: int) -> str:
    """A time to wait in words, rounded up: 45 s, 3 minutes."""
    return f"{seconds} s" if seconds < 100 else count_text(-(-seconds // 60), "minute")
