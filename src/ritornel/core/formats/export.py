"""How a text format describes itself."""

from collections.abc import Callable

import msgspec

from ritornel.core.document.show import Show


def every_show(show: Show) -> bool:
    """For formats that are useful for all shows."""
    return True


class Export(msgspec.Struct, frozen=True, kw_only=True):
    """A text format that shows can be saved in.

    `address` is the end of its address, such as `timings.csv`; a saved file is named by the show's title and `ending`.
    `words` is the text of its button, `about` says what the file contains. `fits` says for which shows it is useful.
    """

    address: str
    ending: str
    content_type: str
    words: str
    about: str
    write: Callable[[Show], str]
    fits: Callable[[Show], bool] = every_show
    place: int
    """Where it stands among the others, from the first."""
