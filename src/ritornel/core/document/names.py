"""Names of things in a show: one line each, wherever they come from."""

from typing import ClassVar

import msgspec

from ritornel.core.wording import one_line


class Named(msgspec.Struct, frozen=True, gc=False):
    """A value with names.

    A file, a form or an edit may bring line breaks or invisible characters; they are removed when the value is made.
    """

    one_line_fields: ClassVar[tuple[str, ...]] = ("name",)
    nameless: ClassVar[str] = ""
    """What stands for a name of which nothing is left."""

    def __post_init__(self) -> None:
        """Makes the names one line. Nobody else has the value yet, so nobody sees the change."""
        for field in self.one_line_fields:
            text = getattr(self, field)
            line = one_line(text) or self.nameless
            if line != text:
                msgspec.structs.force_setattr(self, field, line)
