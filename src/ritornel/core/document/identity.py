"""Values compared as objects: a key for what was computed of a frozen value that is itself slow to compare."""

from typing import Any


class Itself:
    """A key that is equal only to a key of the very same object.

    A slide has hundreds of fields; whether two are equal takes longer than most of what is computed of one. The key
    holds the object, so that its identity cannot pass to another while the key is kept.
    """

    __slots__ = ("value",)

    def __init__(self, value: Any) -> None:
        self.value = value

    def __hash__(self) -> int:
        return id(self.value)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Itself) and other.value is self.value
