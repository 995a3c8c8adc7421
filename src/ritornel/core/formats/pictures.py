"""A folder of pictures as a show: one slide each, with one length and one transition for all."""

import hashlib
from pathlib import Path

import msgspec

from ritornel.core.document.objects import Box, Object, Picture
from ritornel.core.document.pairing import pair_voices
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceWithVoice,
    Asset,
    Frame,
    MusicSpan,
    Show,
    Slide,
    Transition,
    Voice,
)
from ritornel.core.errors import BadValue, RitornelError
from ritornel.core.formats.media import PICTURE_SUFFIXES, SOUND_SUFFIXES, Limits, asset_from, read_medium


def natural_key(name: str) -> list[tuple[int, int, str]]:
    """Sorts `2.jpg` before `10.jpg`.

    >>> sorted(["10.jpg", "2.jpg"], key=natural_key)
    ['2.jpg', '10.jpg']
    """
    parts: list[tuple[int, int, str]] = []
    number = ""
    for character in name.lower() + "\0":
        if character.isascii() and character.isdigit():
            number += character
            continue
        if number:
            parts.append((0, int(number), ""))
            number = ""
        parts.append((1, 0, character))
    return parts


def slides_of(
    assets: list[Asset], each_ms: int, transition: Transition, frame: Frame, stem: str = "", *, fills: bool = False
) -> tuple[Slide, ...]:
    """One slide a picture, all with the same length and transition.

    Ids begin with `stem` and are numbered. A picture of another proportion than the frame is shown whole on the theme's
    background, or, with `fills`, cropped to fill the frame.
    """
    full = Box(0, 0, frame.width_px, frame.height_px)
    made = []
    for number, asset in enumerate(assets, 1):
        item: Object = Picture(
            f"{stem}object-{number}",
            asset.name,
            full,
            asset.id,
            fit="cover" if fills else "contain",
            place="picture",
            alternative=asset.alternative or asset.name,
        )
        made.append(
            Slide(
                f"{stem}slide-{number}",
                asset.name,
                transition=transition,
                advance=AdvanceAfter(each_ms),
                objects=(item,),
                layout="picture alone",
            )
        )
    return tuple(made)


def show_from_pictures(
    folder: Path,
    title: str,
    each_ms: int,
    transition: Transition,
    music: Path | None,
    limits: Limits,
    frame: Frame = Frame(),
) -> tuple[Show, dict[str, Path], list[str]]:
    """The show, the place of each medium by its SHA-256, and a sentence for each file that could not be used.

    Pictures are sorted by name. Raises BadValue for a folder without pictures, BadMedia for music that is none.
    """
    files = sorted(
        (path for path in folder.iterdir() if path.suffix.lower() in PICTURE_SUFFIXES),
        key=lambda path: natural_key(path.name),
    )
    assets: list[Asset] = []
    sources: dict[str, Path] = {}
    refused: list[str] = []
    for path in files:
        try:
            medium = read_medium(path, limits)
            if medium.data != path.read_bytes():
                raise RitornelError(
                    f"“{path.name}” would have to be redrawn first (it is turned, moves, is an SVG or not in "
                    "plain colours); "
                    "bring it in through the web application, which does that."
                )
        except RitornelError as error:
            refused.append(str(error))
            continue
        asset = asset_from(medium, f"picture-{len(assets) + 1}", path.stem)
        assets.append(asset)
        sources[asset.sha256] = path
    slides = slides_of(assets, each_ms, transition, frame)
    if not slides:
        raise BadValue(f"“{folder}” has no pictures that can be used (PNG, JPEG, WebP, GIF).", "pictures")
    spans: tuple[MusicSpan, ...] = ()
    if music is not None:
        sound = read_medium(music, limits)
        if not sound.lasts_ms:
            raise BadValue(f"“{music.name}” is a picture, not music.", "music")
        asset = asset_from(sound, "music-1", music.stem)
        assets.append(asset)
        sources[asset.sha256] = music
        spans = (
            MusicSpan(
                id="span-1",
                asset_id=asset.id,
                crossfade_ms=min(500, sound.lasts_ms // 2),
                fade_in_ms=500,
                fade_out_ms=3000,
            ),
        )
    show_id = "show-" + hashlib.sha256(title.encode()).hexdigest()[:12]
    return Show(show_id, title, frame, slides=tuple(slides), music=spans, assets=tuple(assets)), sources, refused


def with_voices(show: Show, folder: Path, limits: Limits) -> tuple[Show, dict[str, Path], list[str]]:
    """The show with the folder's numbered sounds as voices of its slides; each slide then lasts as long as its voice
    and a breath. Also the place of each sound by its SHA-256, and a sentence for each file or slide without a partner.
    Raises BadValue for a folder without sounds.
    """
    files = sorted(
        (path for path in folder.iterdir() if path.suffix.lower() in SOUND_SUFFIXES),
        key=lambda path: natural_key(path.name),
    )
    if not files:
        raise BadValue(f"“{folder}” has no sounds that can be used (WAV, MP3, Ogg, FLAC, M4A).", "voices")
    slides, assets = list(show.slides), list(show.assets)
    sources: dict[str, Path] = {}
    told: list[str] = []
    for row in pair_voices([path.name for path in files], show):
        if row.trouble:
            told.append(
                f"“{files[row.file].name}” {row.trouble}."
                if row.file is not None
                else f"Slide {(row.slide or 0) + 1} has no voice: {row.trouble}."
            )
        if row.slide is None or row.file is None:
            continue
        path = files[row.file]
        try:
            medium = read_medium(path, limits)
        except RitornelError as error:
            told.append(str(error))
            continue
        if not medium.lasts_ms:
            told.append(f"“{path.name}” is a picture, not a voice.")
            continue
        at = row.slide
        asset = asset_from(medium, f"voice-{at + 1}", path.stem)
        assets.append(asset)
        sources[asset.sha256] = path
        slides[at] = msgspec.structs.replace(
            slides[at], voice=Voice(asset.id, medium.lasts_ms), advance=AdvanceWithVoice()
        )
    return msgspec.structs.replace(show, slides=tuple(slides), assets=tuple(assets)), sources, told
