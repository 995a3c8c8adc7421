"""Where what lies on the shelf is used."""

from ritornel.core.document.integrity import sounds_of
from ritornel.core.document.objects import Photograph, Picture, PlaySound
from ritornel.core.document.show import Show


def uses_of(show: Show) -> dict[str, list[str]]:
    """Where each asset is used, by its id: the ids of slides in order, `music` for a stretch of music, `style` for theme and mark."""
    uses: dict[str, list[str]] = {}

    def note(asset_id: str, where: str) -> None:
        entry = uses.setdefault(asset_id, [])
        if not entry or entry[-1] != where:
            entry.append(where)

    for slide in show.slides:
        for item in slide.objects:
            if isinstance(item, Picture):
                note(item.asset_id, slide.id)
            if isinstance(item.press, PlaySound):
                note(item.press.asset_id, slide.id)
        if isinstance(slide.background, Photograph):
            note(slide.background.asset_id, slide.id)
        if slide.voice is not None:
            note(slide.voice.asset_id, slide.id)
        for effect in sounds_of(slide):
            note(effect.asset_id, slide.id)
    for span in show.music:
        note(span.asset_id, "music")
    for ground in (show.theme.ground, show.theme.opening):
        if isinstance(ground, Photograph):
            note(ground.asset_id, "style")
    if show.furniture.mark_asset_id:
        note(show.furniture.mark_asset_id, "style")
    return uses
