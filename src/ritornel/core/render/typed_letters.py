"""How many letters of each mark are visible while text is typed."""

from collections.abc import Iterable

from ritornel.core.layout.marks import PartDrawing, TextMark


class Typing:
    """The letters that are left for the following marks. A `share` of 1 gives all."""

    def __init__(self, share: float, letters: int) -> None:
        self.share = share
        self.left = letters

    @classmethod
    def of(cls, parts: Iterable[PartDrawing], share: float) -> "Typing":
        """The letters of some parts. Rounded down: a letter appears when it is typed completely."""
        if share >= 1:
            return cls(1.0, 10**9)
        total = sum(len(mark.text) for part in parts for mark in part.marks if isinstance(mark, TextMark))
        return cls(share, int(share * total + 1e-9))

    def take(self, mark: TextMark) -> int:
        """The number of visible letters of the mark."""
        taken = min(self.left, len(mark.text))
        self.left -= taken
        return taken

    def skip(self, part: PartDrawing) -> None:
        """Uses up the letters of a part that is not drawn."""
        for mark in part.marks:
            if isinstance(mark, TextMark):
                self.take(mark)
