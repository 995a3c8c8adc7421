"""Copying slides and objects from one show into another, with the media they use."""

from typing import Any

import msgspec

from ritornel.core.document.copying import copy_of_slide
from ritornel.core.document.edits import AddAssets, AddObjects, AddSlide, Edit, Several
from ritornel.core.document.integrity import sounds_of
from ritornel.core.document.layouts import refit_slide
from ritornel.core.document.objects import GoToSlide, Object, Picture, PictureBackground, PlaySound, TextHolder
from ritornel.core.document.show import Asset, Show, Slide
from ritornel.core.errors import BadValue, UnknownName


def _assets_for(source: Show, target: Show, wanted: list[str], stem: str) -> tuple[dict[str, str], tuple[Asset, ...]]:
    """The id of each asset in the target, and the assets to add. The same content is added once."""
    by_content = {asset.sha256: asset.id for asset in target.assets}
    names: dict[str, str] = {}
    fresh: list[Asset] = []
    for asset_id in dict.fromkeys(wanted):
        asset = source.asset(asset_id)
        if asset is None:
            raise UnknownName(
                f"“{asset_id}” is not on the shelf of “{source.title}” any more. Nothing was brought over."
            )
        if asset.sha256 not in by_content:
            by_content[asset.sha256] = f"{stem}-a{len(fresh)}"
            fresh.append(msgspec.structs.replace(asset, id=by_content[asset.sha256]))
        names[asset_id] = by_content[asset.sha256]
    return names, tuple(fresh)


def _uses(item: Object) -> list[str]:
    used = [item.asset_id] if isinstance(item, Picture) else []
    return used + ([item.press.asset_id] if isinstance(item.press, PlaySound) else [])


def _rename_assets(item: Object, names: dict[str, str], slide_ids: set[str]) -> Object:
    """The object with the target's asset ids. Presses and links to slides that are not there are removed."""
    if isinstance(item, Picture):
        item = msgspec.structs.replace(item, asset_id=names[item.asset_id])
    if isinstance(item.press, PlaySound):
        item = msgspec.structs.replace(item, press=PlaySound(names[item.press.asset_id]))
    elif isinstance(item.press, GoToSlide) and item.press.slide_id not in slide_ids:
        item = msgspec.structs.replace(item, press=None)
    if isinstance(item, TextHolder):
        here = {f"#{slide_id}" for slide_id in slide_ids}
        paragraphs = tuple(
            line.linked(lambda link: link if not link.startswith("#") or link in here else None)
            for line in item.paragraphs
        )
        item = msgspec.structs.replace(item, paragraphs=paragraphs)
    return item


def _rename_sounds(slide: Slide, names: dict[str, str]) -> dict[str, Any]:
    """The slide's transition and builds with the target's asset ids for their sounds."""

    def renamed(thing: Any) -> Any:
        if thing.sound is None:
            return thing
        return msgspec.structs.replace(
            thing, sound=msgspec.structs.replace(thing.sound, asset_id=names[thing.sound.asset_id])
        )

    return {"transition": renamed(slide.transition), "order": tuple(map(renamed, slide.order))}


def bring_slides(source: Show, target: Show, slide_ids: tuple[str, ...], at: int, stem: str) -> Edit:
    """The edit that puts copies of the slides, in their order, at index `at` of the target, in its theme and frame."""
    chosen = [slide for slide in source.slides if slide.id in slide_ids]
    if not chosen:
        raise BadValue("None of these slides is in the other show any more. Nothing was brought over.", "slide_ids")
    wanted = [used for slide in chosen for item in slide.objects for used in _uses(item)]
    wanted += [slide.background.asset_id for slide in chosen if isinstance(slide.background, PictureBackground)]
    wanted += [slide.voice.asset_id for slide in chosen if slide.voice]
    wanted += [effect.asset_id for slide in chosen for effect in sounds_of(slide)]
    names, fresh = _assets_for(source, target, wanted, stem)
    known = {slide.id for slide in target.slides}
    edits: list[Edit] = [AddAssets(fresh)] if fresh else []
    for number, slide in enumerate(chosen):
        copy = copy_of_slide(
            refit_slide(slide, (source.theme, source.frame), (target.theme, target.frame)), f"{stem}-{number}"
        )
        ground = copy.background
        if isinstance(ground, PictureBackground):
            ground = msgspec.structs.replace(ground, asset_id=names[ground.asset_id])
        objects = tuple(_rename_assets(item, names, known) for item in copy.objects)
        voice = msgspec.structs.replace(copy.voice, asset_id=names[copy.voice.asset_id]) if copy.voice else None
        edits.append(
            AddSlide(
                at + number,
                msgspec.structs.replace(
                    copy, background=ground, objects=objects, voice=voice, **_rename_sounds(copy, names)
                ),
            )
        )
    return Several(f"Bring {len(chosen)} slide{'' if len(chosen) == 1 else 's'} over from {source.title}", tuple(edits))


def bring_objects(source: Show, target: Show, objects: tuple[Object, ...], slide_id: str, stem: str) -> Edit:
    """The edit that puts the objects, which have new ids already, on a slide of the target."""
    names, fresh = _assets_for(source, target, [used for item in objects for used in _uses(item)], stem)
    known = {slide.id for slide in target.slides}
    added = AddObjects(slide_id, tuple(_rename_assets(item, names, known) for item in objects))
    edits: tuple[Edit, ...] = (AddAssets(fresh), added) if fresh else (added,)
    return Several(f"Bring {len(objects)} object{'' if len(objects) == 1 else 's'} over from {source.title}", edits)
