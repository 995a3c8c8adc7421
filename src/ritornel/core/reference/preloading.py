"""Which media are loaded in advance (static/ritornel/player/preloading.js)."""

SLIDES_AHEAD = 6
"""So many slides are fetched ahead, the one that is shown among them."""


def coming_slides(count: int, index: int) -> range:
    """The slides, of so many, whose media are loaded while slide `index` is shown, in this order: itself and the next
    ones.
    """
    return range(index, min(index + SLIDES_AHEAD, count))
