"""What other apps may use of takes."""

import msgspec

from ritornel.core.document.decoding import from_json
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import UnknownName
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.core.rehearsal.take import timing_of, use_timing
from ritornel.web.shows.services import Show, value_of


class TakeLine(msgspec.Struct, frozen=True):
    """A take by its number and name."""

    number: int
    name: str


def takes_of(row: Show) -> tuple[TakeLine, ...]:
    """The show's takes, the newest first."""
    return tuple(TakeLine(take.number, take.name) for take in row.takes.defer("body"))


def timed_by(row: Show, number: int) -> tuple[ShowValue, str]:
    """The show with the timing of a take, and the take's name.

    Nothing is changed. Raises UnknownName for an unknown take.
    """
    take = row.takes.filter(number=number).first()
    if take is None:
        raise UnknownName(f"There is no take {number} of “{row.title}” any more. Nothing was begun.")
    show = value_of(row)
    edit, _ = use_timing(show, timing_of(from_json(bytes(take.body), TakeValue, "The take")), take.name)
    return apply_edit(show, edit).show, take.name
