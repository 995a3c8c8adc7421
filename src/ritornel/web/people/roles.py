"""What people may do with a show of somebody else."""

from typing import Literal, get_args

import msgspec

from ritornel.core.errors import UnknownName

Role = Literal["edit", "record", "comment", "watch"]
Act = Literal["own", "edit", "record", "comment", "watch", "see"]
"""To `see` is what everybody may who was let in: of a show what is theirs of it."""
MAY: dict[str, frozenset[Act]] = {
    "own": frozenset(get_args(Act)),
    "edit": frozenset(("edit", "record", "comment", "watch", "see")),
    # Who records a section sees and changes that section only, so never the whole show.
    "record": frozenset(("record", "comment", "see")),
    "comment": frozenset(("comment", "watch", "see")),
    "watch": frozenset(("watch", "see")),
}
WORDS: dict[str, str] = {
    "edit": "edit the show",
    "record": "record one section",
    "comment": "comment on it",
    "watch": "watch it",
}


WHERE = {"own": "compose", "edit": "compose", "record": "record", "comment": "comments", "watch": "play"}
"""The page on which a show is opened by who is that to it."""


class Access(msgspec.Struct, frozen=True):
    """A person's access to a show; for somebody who records one section, `section` is the slide that names it."""

    role: Literal["own", "edit", "record", "comment", "watch"]
    section: str = ""

    def may(self, act: Act) -> bool:
        """Whether this access allows the act. Raises UnknownName for an unknown act."""
        if act not in get_args(Act):
            raise UnknownName(f"There is no act “{act}”; there are {', '.join(get_args(Act))}.")
        return act in MAY[self.role]
