"""Edits of the shelf and of the sounds placed from it."""

from typing import Any

import msgspec

from ritornel.core.document.changes import (
    Change,
    InsertAsset,
    InsertSlide,
    PutAsset,
    PutMusic,
    PutSlide,
    PutStyle,
    RemoveAsset,
    asset_index,
    style_of,
)
from ritornel.core.document.credits import credit_lines, write_credits
from ritornel.core.document.decoding import replace_fields
from ritornel.core.document.edits.draft import Draft
from ritornel.core.document.layouts import box_of, layout_named, look_of
from ritornel.core.document.objects import (
    Clip,
    Id,
    Object,
    Paragraph,
    Picture,
    PictureBackground,
    PlaySound,
    Text,
    TextRun,
    part_within,
)
from ritornel.core.document.show import AdvanceAfter, Asset, MusicSpan, Show, Slide, Transition, first_advance
from ritornel.core.document.theme import Theme
from ritornel.core.document.uses import uses_of
from ritornel.core.errors import BadValue, UnknownName

CREDITS = {"name", "author", "licence", "credit", "alternative", "folder"}


class AddAssets(msgspec.Struct, frozen=True, tag_field="do", tag="add assets"):
    assets: tuple[Asset, ...]

    def draft(self, show: Show) -> Draft:
        known = {asset.id for asset in show.assets}
        for asset in self.assets:
            if asset.id in known:
                raise BadValue(f"There is already something “{asset.id}” on the shelf.", "asset.id")
            known.add(asset.id)
        label = (
            f"Put {self.assets[0].name} on the shelf"
            if len(self.assets) == 1
            else (f"Put {len(self.assets)} files on the shelf")
        )
        return Draft(
            tuple(InsertAsset(len(show.assets) + number, asset) for number, asset in enumerate(self.assets)), label
        )


class DropAssets(msgspec.Struct, frozen=True, tag_field="do", tag="drop assets"):
    """Removes assets from the shelf. Where one of them is in use, the edit is refused."""

    asset_ids: tuple[Id, ...]

    def draft(self, show: Show) -> Draft:
        uses = uses_of(show)
        for asset_id in self.asset_ids:
            asset = show.assets[asset_index(show, asset_id)]
            if asset_id in uses:
                where = uses[asset_id][0]
                slide = show.slide(where)
                place = (
                    f"slide “{slide.name or slide.id}”"
                    if slide
                    else {"music": "the music", "style": "every slide"}[where]
                )
                raise BadValue(f"“{asset.name}” is still used on {place}; remove it there first.", "asset_ids")
        name = (
            show.assets[asset_index(show, self.asset_ids[0])].name
            if len(self.asset_ids) == 1
            else f"{len(self.asset_ids)} files"
        )
        return Draft(tuple(RemoveAsset(asset_id) for asset_id in self.asset_ids), f"Take {name} off the shelf")


class ChangeAsset(msgspec.Struct, frozen=True, tag_field="do", tag="change asset"):
    """Changes name, author, licence, credit, text alternative and folder. The file stays."""

    asset_id: Id
    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        asset = show.assets[asset_index(show, self.asset_id)]
        foreign = set(self.changes) - CREDITS
        if foreign:
            raise BadValue(f"“{asset.name}” has no field “{sorted(foreign)[0]}” that can be set.", sorted(foreign)[0])
        fresh: Asset = replace_fields(asset, self.changes, Asset, f"Changing “{asset.name}”")
        if not fresh.name.strip():
            raise BadValue("What is on the shelf needs a name.", "name")
        return Draft((PutAsset(fresh),), f"Change {', '.join(sorted(self.changes))} of {asset.name}")


class ReplaceAsset(msgspec.Struct, frozen=True, tag_field="do", tag="replace asset"):
    """Replaces an asset by another of the same kind wherever it is used. Places, crops and builds stay."""

    asset_id: Id
    by: Id

    def draft(self, show: Show) -> Draft:
        old, new = show.assets[asset_index(show, self.asset_id)], show.assets[asset_index(show, self.by)]
        if old.kind != new.kind:
            raise BadValue(
                f"“{old.name}” is a {old.kind} and “{new.name}” a {new.kind}: only another {old.kind} can "
                "take its place.",
                "by",
            )
        changes: list[Change] = [
            PutSlide(fresh) for slide in show.slides if (fresh := self._on(slide, new)) is not slide
        ]
        places = len(changes)
        music = tuple(
            msgspec.structs.replace(span, asset_id=self.by) if span.asset_id == self.asset_id else span
            for span in show.music
        )
        if music != show.music:
            changes.append(PutMusic(music))
        style = self._in_style(show)
        if style != style_of(show):
            changes.append(style)
        if not changes:
            raise BadValue(f"“{old.name}” is used nowhere.", "asset_id")
        return Draft(
            tuple(changes),
            f"Replace {old.name} everywhere",
            (f"“{new.name}” stands for “{old.name}” on {places} slide{'' if places == 1 else 's'} now.",),
        )

    def _on(self, slide: Slide, new: Asset) -> Slide:
        def swap(item: Object) -> Object:
            if isinstance(item, Picture) and item.asset_id == self.asset_id:
                item = msgspec.structs.replace(item, asset_id=self.by)
                if isinstance(item, Clip):
                    in_ms, out_ms = part_within(item.in_ms, item.out_ms, new.lasts_ms)
                    item = msgspec.structs.replace(item, in_ms=in_ms, out_ms=out_ms)
            if isinstance(item.press, PlaySound) and item.press.asset_id == self.asset_id:
                item = msgspec.structs.replace(item, press=PlaySound(self.by))
            return item

        objects = tuple(swap(item) for item in slide.objects)
        ground = slide.background
        if isinstance(ground, PictureBackground) and ground.asset_id == self.asset_id:
            ground = msgspec.structs.replace(ground, asset_id=self.by)
        voice = slide.voice
        if voice is not None and voice.asset_id == self.asset_id:
            in_ms, out_ms = part_within(voice.in_ms, voice.out_ms, new.lasts_ms)
            voice = msgspec.structs.replace(voice, asset_id=self.by, in_ms=in_ms, out_ms=out_ms)
        transition, order = self._heard(slide.transition), tuple(map(self._heard, slide.order))
        spares = tuple(msgspec.structs.replace(spare, object=swap(spare.object)) for spare in slide.spares)
        fresh = msgspec.structs.replace(
            slide,
            objects=objects,
            background=ground,
            voice=voice,
            transition=transition,
            order=order,
            spares=spares,
        )
        return slide if fresh == slide else fresh

    def _heard(self, thing: Any) -> Any:
        """A build or transition with its sound replaced."""
        if thing.sound is None or thing.sound.asset_id != self.asset_id:
            return thing
        return msgspec.structs.replace(thing, sound=msgspec.structs.replace(thing.sound, asset_id=self.by))

    def _in_style(self, show: Show) -> PutStyle:
        def theme_with(theme: Theme) -> Theme:
            grounds = {
                name: msgspec.structs.replace(ground, asset_id=self.by)
                for name in ("ground", "opening")
                if isinstance(ground := getattr(theme, name), PictureBackground) and ground.asset_id == self.asset_id
            }
            return msgspec.structs.replace(theme, **grounds) if grounds else theme

        furniture = show.furniture
        if furniture.mark_asset_id == self.asset_id:
            furniture = msgspec.structs.replace(furniture, mark_asset_id=self.by)
        return PutStyle(show.frame, theme_with(show.theme), furniture)


class PutSpan(msgspec.Struct, frozen=True, tag_field="do", tag="put span"):
    """Adds the span, or replaces the one with the same id."""

    span: MusicSpan

    def draft(self, show: Show) -> Draft:
        if show.asset(self.span.asset_id) is None:
            raise UnknownName("Placing music: its sound is not on the shelf.")
        known = any(old.id == self.span.id for old in show.music)
        music = (
            tuple(self.span if old.id == self.span.id else old for old in show.music)
            if known
            else (*show.music, self.span)
        )
        return Draft((PutMusic(music),), "Change the music" if known else "Add music")


class RemoveSpan(msgspec.Struct, frozen=True, tag_field="do", tag="remove span"):
    span_id: Id

    def draft(self, show: Show) -> Draft:
        music = tuple(span for span in show.music if span.id != self.span_id)
        if music == show.music:
            raise UnknownName(f"The music “{self.span_id}” is not in the show any more.")
        return Draft((PutMusic(music),), "Remove music")


class GatherCredits(msgspec.Struct, frozen=True, tag_field="do", tag="gather credits"):
    """Adds a closing slide that credits all media in use and stays up to date.

    Ids begin with `stem`. Where there is such a slide already, nothing changes.
    """

    stem: Id

    def draft(self, show: Show) -> Draft:
        known = next(
            (slide for slide in show.slides for item in slide.objects if isinstance(item, Text) and item.credits), None
        )
        if known is not None:
            raise BadValue(
                f"Slide “{known.name or known.id}” credits what the show uses already, and keeps itself true.", "stem"
            )
        lines = credit_lines(show)
        if not lines:
            raise BadValue(
                "Nothing that the show uses has an author, a licence or a credit yet; write them on the shelf.", "stem"
            )
        heading, words = layout_named("credits").places
        style = (show.theme, show.frame)
        thanks = (Paragraph(f"{self.stem}-t-1", (TextRun("With thanks"),)),)
        title = Text(f"{self.stem}-t", "Heading", box_of(heading, show.frame), place=heading.name, paragraphs=thanks)
        title = msgspec.structs.replace(title, **look_of(heading, *style))
        body = Text(f"{self.stem}-w", "Credits", box_of(words, show.frame), place=words.name, credits=True)
        body = write_credits(msgspec.structs.replace(body, **look_of(words, *style)), lines)
        advance = first_advance(show.runs, f"{self.stem}-out") if show.runs == "on cue" else AdvanceAfter(8000)
        slide = Slide(
            f"{self.stem}-s",
            "Credits",
            objects=(title, body),
            layout="credits",
            transition=Transition("dissolve", 800),
            advance=advance,
        )
        return Draft((InsertSlide(len(show.slides), slide),), "Gather the credits")
