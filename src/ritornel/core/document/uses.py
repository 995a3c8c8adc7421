"""Where each asset of the shelf is used."""

from collections.abc import Iterator

from ritornel.core.document.integrity import sounds_of, style_assets
from ritornel.core.document.objects import Clip, Picture, PictureBackground, PlaySound
from ritornel.core.document.show import Show, Slide


def used_on(slide: Slide) -> Iterator[str]:
    """The ids of the slide's assets, one for each use."""
    for item in (*slide.objects, *(spare.object for spare in slide.spares)):
        if isinstance(item, Picture):
            yield item.asset_id
        if isinstance(item.press, PlaySound):
            yield item.press.asset_id
    if isinstance(slide.background, PictureBackground):
        yield slide.background.asset_id
    if slide.voice is not None:
        yield slide.voice.asset_id
    for effect in sounds_of(slide):
        yield effect.asset_id


def uses_of(show: Show) -> dict[str, list[str]]:
    """The uses of each asset, by id: the ids of slides in order, `music` for a span of music, `style` for theme and
    mark.
    """
    uses: dict[str, list[str]] = {}

    def note(asset_id: str, where: str) -> None:
        entry = uses.setdefault(asset_id, [])
        if not entry or entry[-1] != where:
            entry.append(where)

    for slide in show.slides:
        for asset_id in used_on(slide):
            note(asset_id, slide.id)
    for span in show.music:
        note(span.asset_id, "music")
    for asset_id in style_assets(show):
        note(asset_id, "style")
    return uses


def clip_rates(show: Show) -> set[tuple[str, int]]:
    """The speeds, in per cent, at which the show plays each clip, by asset."""
    return {(item.asset_id, item.rate_pct) for slide in show.slides for item in slide.objects if isinstance(item, Clip)}


def uses_changed(before: Show, after: Show) -> bool:
    """Whether an edit can change where assets are used. Only changed slides are examined."""
    if (
        before.music != after.music
        or style_assets(before) != style_assets(after)
        or len(before.slides) != len(after.slides)
    ):
        return True
    differing = [(old, new) for old, new in zip(before.slides, after.slides, strict=True) if old is not new]
    return any(old.id != new.id or list(used_on(old)) != list(used_on(new)) for old, new in differing)
