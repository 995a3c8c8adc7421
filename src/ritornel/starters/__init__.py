"""Ten shows to start from, with real slides and timing. `STARTERS` names them; `starter_show` makes one."""

from collections.abc import Callable
from types import MappingProxyType

import msgspec

from ritornel.core.document.show import Asset, Show
from ritornel.core.errors import UnknownName
from ritornel.demo.orlmere import media
from ritornel.starters import exhibits, lessons, papers, talks


class Starter(msgspec.Struct, frozen=True):
    """A starter: its name in addresses, its title, what it is for, and what makes it."""

    name: str
    title: str
    purpose: str
    make: Callable[[], Show]


STARTERS = MappingProxyType(
    {
        starter.name: starter
        for starter in (
            Starter(
                "lesson", "Spoken lesson", "Explain something step by step; parts arrive on your cue.", lessons.lesson
            ),
            Starter("quiz", "Quiz", "Ask, wait, answer. Presses lead to each answer and back.", lessons.quiz),
            Starter(
                "talk",
                "Talk in sections",
                "A narrated talk for several speakers, with a slide that opens each section.",
                talks.sections,
            ),
            Starter(
                "proposal",
                "Proposal",
                "What is the matter, what it takes, what it costs, what to decide.",
                talks.proposal,
            ),
            Starter(
                "exhibit", "Exhibit, all day", "Runs by itself without an end, with quiet music.", exhibits.exhibit
            ),
            Starter(
                "choices",
                "Visitors choose",
                "A screen to press: a start page that leads to its topics and back.",
                exhibits.choices,
            ),
            Starter(
                "photographs",
                "Photo show with music",
                "Pictures full size, captions, music under all of it.",
                exhibits.photographs,
            ),
            Starter("window", "Upright window screen", "For a tall screen in a window or hallway.", exhibits.window),
            Starter("summary", "One-page summary", "A whole matter on one page that builds itself.", papers.summary),
            Starter("year", "A year in numbers", "Figures, a chart drawn from shapes, a line of dates.", papers.year),
        )
    }
)


def starter_show(name: str, show_id: str, title: str) -> tuple[Show, dict[str, bytes]]:
    """A new show from a starter with the media it uses, and their bytes by hash.

    An empty title keeps the starter's. Raises UnknownName.
    """
    if name not in STARTERS:
        raise UnknownName(f"There is no starter “{name}”; there are {', '.join(STARTERS)}.")
    show = STARTERS[name].make()
    used = {
        asset_id
        for asset_id in media()
        if f'"{asset_id}"'.encode() in msgspec.json.encode((show.slides, show.music, show.furniture))
    }
    found = {asset_id: entry for asset_id, entry in media().items() if asset_id in used}
    assets: tuple[Asset, ...] = tuple(asset for asset, _ in found.values())
    data = {asset.sha256: content for asset, content in found.values()}
    return msgspec.structs.replace(show, id=show_id, title=title or show.title, assets=assets), data
