"""Credits: the lines for the media a show uses, and texts that update these lines by themselves."""

from functools import lru_cache

import msgspec

from ritornel.core.document.changes import Change, PutSlide
from ritornel.core.document.identity import Itself
from ritornel.core.document.objects import Paragraph, Text, TextRun
from ritornel.core.document.running_order import without_builds
from ritornel.core.document.show import Asset, Show, Slide
from ritornel.core.document.uses import uses_of


def _credit_of(asset: Asset) -> str:
    """The credit of an asset: the author's own wording, else author and licence; empty where nothing is known."""
    return asset.credit.strip() or ", ".join(word for word in (asset.author.strip(), asset.licence.strip()) if word)


def credit_lines(show: Show) -> tuple[str, ...]:
    """One line for each author of the media in use, in the order of first use, with the names of their assets.

    Assets without any known author or licence have no line.
    """
    uses = uses_of(show)
    grouped: dict[str, list[str]] = {}
    order = {asset_id: number for number, asset_id in enumerate(uses)}
    for asset in sorted((asset for asset in show.assets if asset.id in uses), key=lambda asset: order[asset.id]):
        thanks = _credit_of(asset)
        names = grouped.setdefault(thanks, []) if thanks else []
        if asset.name not in names:
            names.append(asset.name)
    return tuple(f"{', '.join(names)}: {thanks}" for thanks, names in grouped.items())


def write_credits(item: Text, lines: tuple[str, ...]) -> Text:
    """The text with these lines. A line that stays keeps its paragraph, and so its builds."""
    if tuple(paragraph.text for paragraph in item.paragraphs) == (lines or ("",)):
        return item
    kept = {paragraph.text: paragraph for paragraph in reversed(item.paragraphs)}
    taken: set[str] = {paragraph.id for line, paragraph in kept.items() if line in lines}
    free = (f"{item.id}-c{number}" for number in range(1, 10_000))
    paragraphs = []
    for line in lines or ("",):
        if line in kept:
            paragraphs.append(kept.pop(line))
            continue
        fresh = next(name for name in free if name not in taken)
        taken.add(fresh)
        paragraphs.append(Paragraph(fresh, (TextRun(line),)))
    return msgspec.structs.replace(item, paragraphs=tuple(paragraphs))


@lru_cache(maxsize=4000)
def _gives_credits(slide: Itself) -> bool:
    return any(isinstance(item, Text) and item.credits for item in slide.value.objects)


def update_credits(show: Show) -> tuple[Change, ...]:
    """The changes that bring texts of credits up to date with what the show uses."""
    follow = [slide for slide in show.slides if _gives_credits(Itself(slide))]
    if not follow:
        return ()
    lines = credit_lines(show)
    changes: list[Change] = []
    for slide in follow:
        objects = tuple(
            write_credits(item, lines) if isinstance(item, Text) and item.credits else item for item in slide.objects
        )
        if objects != slide.objects:
            changes.append(PutSlide(_drop_lost_builds(msgspec.structs.replace(slide, objects=objects))))
    return tuple(changes)


def _drop_lost_builds(slide: Slide) -> Slide:
    """The slide without builds of credit lines that are gone."""
    parts = {
        paragraph.id
        for item in slide.objects
        if isinstance(item, Text) and item.credits
        for paragraph in item.paragraphs
    }
    following = {item.id for item in slide.objects if isinstance(item, Text) and item.credits}
    gone = {
        build.id
        for build in slide.order
        if build.object_id in following and build.part is not None and build.part not in parts
    }
    return msgspec.structs.replace(slide, order=without_builds(slide.order, gone)) if gone else slide
