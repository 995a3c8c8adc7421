"""The show with which somebody learns to make one: three slides on which nothing moves yet."""

from ritornel.core.document.show import Asset, Show
from ritornel.core.document.themes import LIMEWASH
from ritornel.demo.orlmere import media
from ritornel.starters.writing import Page

TITLE = "My first show"
_SHELF = ("noon", "waltz")
"""What lies on its shelf: the picture of its first slide, and music to put under it."""


def first_show(show_id: str) -> tuple[Show, dict[str, bytes]]:
    """The show, and the bytes of its media by hash."""
    theme = LIMEWASH
    one = Page("town", "picture", theme, "The town")
    one.picture("picture", "noon", "The tower of Orlmere at noon, above the roofs")
    two = Page("wheel", "heading", theme, "The wheel")
    two.fill("heading", "One wheel moves it all")
    two.shape("wheel", "wheel", (640, 200, 420, 420), "@second", points=18)
    two.words("words", (84, 230, 480, 160), "It turns once an hour.", "It has 96 teeth.", size=32)
    three = Page("end", "title", theme, "Come and see it")
    three.fill("title", "Come and see it")
    three.fill("subtitle", "On Saturdays, when the clock is wound")
    slides = tuple(page.slide(6000) for page in (one, two, three))
    shelf = tuple(media()[name] for name in _SHELF)
    assets: tuple[Asset, ...] = tuple(asset for asset, _ in shelf)
    show = Show(show_id, TITLE, runs="self-running", slides=slides, assets=assets, theme=theme)
    return show, {asset.sha256: data for asset, data in shelf}
