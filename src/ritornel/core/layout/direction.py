"""Which way text runs (UAX #9, by python-bidi), and the order in which its stretches stand on a line."""

from functools import lru_cache
from typing import TypeVar
from unicodedata import bidirectional

from bidi import algorithm

T = TypeVar("T")
CONTROLS = dict.fromkeys([*range(0x202A, 0x202F), *range(0x2066, 0x206A)])
"""Explicit direction marks are taken out: what they do cannot be seen or edited on a slide."""


@lru_cache(maxsize=20_000)
def levels_of(text: str) -> tuple[int, tuple[int, ...]]:
    """The paragraph's own level (0: left to right) and that of each character.

    Text without right-to-left letters is level 0 throughout.
    """
    if not any(bidirectional(character) in ("R", "AL", "AN") for character in text):
        return 0, (0,) * len(text)
    storage = algorithm.get_empty_storage()
    base = algorithm.get_base_level(text)
    storage["base_level"], storage["base_dir"] = base, ("L", "R")[base]
    algorithm.get_embedding_levels(text, storage)
    for index, character in enumerate(storage["chars"]):
        character["at"] = index
    algorithm.explicit_embed_and_overrides(storage)
    algorithm.resolve_weak_types(storage)
    algorithm.resolve_neutral_types(storage, False)
    algorithm.resolve_implicit_levels(storage, False)
    levels = [-1] * len(text)
    for character in storage["chars"]:
        levels[character["at"]] = character["level"]
    for index, level in enumerate(levels):
        if level < 0:  # joiners are left out of the algorithm (rule X9) and go with what they follow
            levels[index] = levels[index - 1] if index else base
    return base, tuple(levels)


def in_visual_order(stretches: list[tuple[int, T]]) -> list[T]:
    """The stretches of a line, each with its level, from left to right (rule L2)."""
    order = list(stretches)
    highest = max((level for level, _ in order), default=0)
    for level in range(highest, 0, -1):
        start = 0
        while start < len(order):
            if order[start][0] < level:
                start += 1
                continue
            end = start
            while end < len(order) and order[end][0] >= level:
                end += 1
            order[start:end] = order[start:end][::-1]
            start = end
    return [stretch for _, stretch in order]
