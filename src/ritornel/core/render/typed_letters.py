"""How many letters of each mark stand while words are typed."""

from collections.abc import Iterable

from ritornel.core.layout.marks import PartDrawing, TextMark


class Typing:
    """Letters left to hand out, mark after mark. A `share` of 1 hands out all there are."""

    def __init__(self, share: float, letters: int) -> None:
        self.share = share
        self.left = letters

    @classmethod
    def of(cls, parts: Iterable[PartDrawing], share: float) -> "Typing":
        """For the letters of some parts. Rounded down: a letter stands when it is typed whole."""
        if share >= 1:
            return cls(1.0, 10**9)
        total = sum(len(mark.text) for part in parts for mark in part.marks if isinstance(mark, TextMark))
        return cls(share, int(share * total + 1e-9))

    def take(self, mark: TextMark) -> int:
        """How many letters of the mark stand."""
        taken = min(self.left, len(mark.text))
        self.left -= taken
        return taken

    def skip(self, part: PartDrawing) -> None:
        """Hands out the letters of a part that is not drawn."""
        for mark in part.marks:
            if isinstance(mark, TextMark):
                self.take(mark)
