"""Which media are fetched ahead (static/ritornel/player/preloading.js)."""

SLIDES_AHEAD = 6
"""So many slides are fetched ahead, the one that is shown among them."""


def coming_slides(count: int, index: int) -> range:
    """The slides, of so many, whose media are fetched while slide `index` is shown, in this order: itself and those
    that come next.
    """
    return range(index, min(index + SLIDES_AHEAD, count))
