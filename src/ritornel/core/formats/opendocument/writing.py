"""An OpenDocument presentation from a show."""

import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import IO
from xml.etree.ElementTree import Element, tostring

import msgspec

from ritornel.core.document.framings import WHOLE
from ritornel.core.document.layouts import ground_of, layout_named, scale_of
from ritornel.core.document.objects import Background, Box, ClipBackground, Gradient, PictureBackground, Plain
from ritornel.core.document.show import AdvanceOnCue, Asset, Show, Slide, SoundEffect
from ritornel.core.document.theme import Ornament, colour_in, family_in, ground_in, in_theme
from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import SUFFIXES
from ritornel.core.formats.opendocument.names import MEDIA_TYPE, SPACES, VERSION, Loss, points, with_alpha
from ritornel.core.formats.opendocument.transitions import wipe_of
from ritornel.core.formats.opendocument.written_builds import Timing
from ritornel.core.formats.opendocument.written_objects import Drawing, place_of
from ritornel.core.formats.opendocument.written_styles import Dress, document, el
from ritornel.core.layout.drawing import FURNITURE_PX
from ritornel.core.motion.catalogue import TRANSITIONS
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.slide_schedule import SlideSchedule

_FOLDERS = {"picture": "Pictures", "sound": "Media", "clip": "Media"}
_SERIFS = frozenset({"Spectral", "EB Garamond", "Alegreya", "Literata"})


class WrittenPresentation(msgspec.Struct, frozen=True):
    """The documents of a presentation, its media by their places inside, and the losses."""

    content: bytes
    styles: bytes
    media: tuple[tuple[str, Asset], ...]
    losses: tuple[Loss, ...]


def write_opendocument(show: Show, out: IO[bytes], media: Callable[[str], Path]) -> tuple[Loss, ...]:
    """Writes the show with its media, and returns the losses. Raises BadMedia where a medium is missing."""
    written = written_of(show)
    for _, asset in written.media:
        if not media(asset.sha256).is_file():
            raise BadMedia(f"“{asset.name}” is missing, so “{show.title}” cannot be saved as a presentation.")
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
        # The kind comes first and as it is, so that it can be told from the first bytes (OpenDocument 1.3, part 2,
        # 3.3).
        bundle.writestr(zipfile.ZipInfo("mimetype"), MEDIA_TYPE, zipfile.ZIP_STORED)
        bundle.writestr("content.xml", written.content)
        bundle.writestr("styles.xml", written.styles)
        bundle.writestr("meta.xml", _meta(show))
        for place, asset in written.media:
            bundle.write(media(asset.sha256), place, zipfile.ZIP_STORED)
        bundle.writestr("META-INF/manifest.xml", _manifest(written.media))
    return written.losses


def opendocument_losses(show: Show) -> tuple[Loss, ...]:
    """The losses, before anything is written."""
    return written_of(show).losses


def written_of(show: Show) -> WrittenPresentation:
    """The show's documents."""
    return _Writer(show).written()


class _Writer:
    """Writes one show."""

    def __init__(self, show: Show) -> None:
        self._show, self._dress, self._losses = show, Dress(), [Loss(0, words) for words in _whole(show)]
        self._assets = {asset.id: asset for asset in show.assets}
        self._addresses = {
            asset.id: f"{_FOLDERS[asset.kind]}/{asset.sha256[:24]}{SUFFIXES[asset.media_type]}" for asset in show.assets
        }
        self._used: dict[str, Asset] = {}
        self._masters: dict[tuple[Background, tuple[Ornament, ...]], str] = {}
        self._names = _page_names(show)
        shown = msgspec.structs.replace(
            show, slides=tuple(msgspec.structs.replace(slide, skipped=False) for slide in show.slides)
        )
        self._schedules = {schedule.slide_id: schedule for schedule in compile_show(shown).slides}

    def written(self) -> WrittenPresentation:
        pages = [self._page(number, slide) for number, slide in enumerate(self._show.slides, 1)]
        settings = el(
            "presentation:settings", {"presentation:endless": "true" if self._show.end == "loop" else "false"}
        )
        body = el("office:body", {}, el("office:presentation", {}, *pages, settings))
        content = document(
            "office:document-content", self._fonts(), el("office:automatic-styles", {}, *self._dress.automatic()), body
        )
        # Masters come last: their fills join what the pages have in common.
        styles = self._styles()
        media = tuple({self._addresses[asset.id]: asset for asset in self._used.values()}.items())
        return WrittenPresentation(content, styles, media, tuple(self._losses))

    def _address(self, asset_id: str) -> str:
        self._used[asset_id] = self._assets[asset_id]
        return self._addresses[asset_id]

    def _fonts(self) -> Element:
        theme = self._show.theme
        families = {
            family_in(theme, getattr(item, "family", "@body")) for slide in self._show.slides for item in slide.objects
        } | {
            theme.heading_family,
            theme.body_family,
        }
        faces = [
            el(
                "style:font-face",
                {
                    "style:name": name,
                    "svg:font-family": f"'{name}'",
                    "style:font-family-generic": "roman" if name in _SERIFS else "swiss",
                },
            )
            for name in sorted(families)
        ]
        return el("office:font-face-decls", {}, *faces)

    def _page(self, number: int, slide: Slide) -> Element:
        lost: set[str] = set()
        schedule = self._schedules[slide.id]
        named = {build.part or build.object_id for build in slide.order if build.object_id != WHOLE}
        items = [in_theme(item, self._show.theme) for item in slide.objects]
        addresses = {
            asset_id: self._address(asset_id) for item in items if (asset_id := getattr(item, "asset_id", None))
        }
        drawing = Drawing(self._dress, self._assets, addresses, self._names, lost)
        elements = drawing.objects(slide, items, named)
        wipe, same = wipe_of(slide.transition)
        if not same:
            lost.add(f"the transition “{TRANSITIONS[slide.transition.name].title}”: the nearest takes its place")
        voice = None
        if slide.voice is not None:
            voice = (self._address(slide.voice.asset_id), slide.voice.offset_ms)
            lost |= (
                {"marks, level and trims of the voice"}
                if slide.voice.marks or slide.voice.gain_db or slide.voice.in_ms
                else set()
            )
        timing = Timing(
            slide,
            schedule,
            self._show.frame,
            lambda sound: self._address(sound.asset_id),
            self._show.runs == "self-running",
            lost,
        )
        root = timing.root(wipe, voice)
        if slide.size is not None:
            lost.add("a slide larger than the frame: what lies outside is there, but not seen")
        master = self._master(slide)
        page = el(
            "draw:page",
            {
                "draw:name": self._names[slide.id],
                "draw:style-name": self._page_style(slide, schedule, lost),
                "draw:master-page-name": master,
            },
        )
        page.extend([*self._veil(slide), *self._furniture(number, slide), *elements])
        if root is not None:
            page.append(root)
        page.append(self._notes(number, slide))
        self._losses += [Loss(number, words) for words in sorted(lost)]
        return page

    def _master(self, slide: Slide) -> str:
        """The master of a slide, one for each background with its ornaments."""
        layout = layout_named(slide.layout)
        plain = slide.background is not None or layout.name in ("picture", "clip") or slide.size is not None
        kinds = (
            frozenset()
            if plain
            else frozenset(
                {"all", "openings" if layout.opens else "slides"} | ({"titles"} if layout.name == "title" else set())
            )
        )
        drawn = tuple(entry for entry in self._show.theme.ornaments if entry.on in kinds)
        ground = self._show.theme.opening if layout.opens else self._show.theme.ground
        return self._masters.setdefault((ground, drawn), f"Master {len(self._masters) + 1}")

    def _veil(self, slide: Slide) -> list[Element]:
        """The overlay on a background picture: a transparent rectangle."""
        ground = ground_in(self._show.theme, ground_of(slide, self._show.theme))
        if not isinstance(ground, PictureBackground) or isinstance(ground, ClipBackground) or not ground.veil:
            return []
        style = self._dress.style(
            "graphic",
            {"graphic": {"draw:stroke": "none", **self._dress.fill(Plain(with_alpha(ground.colour[:7], ground.veil)))}},
        )
        frame = self._show.frame
        return [
            el(
                "draw:rect",
                {"draw:style-name": style, "draw:name": "Veil", **place_of(Box(0, 0, frame.width_px, frame.height_px))},
            )
        ]

    def _furniture(self, number: int, slide: Slide) -> list[Element]:
        """Footer and number where the show has them, as the page's own."""
        furniture, frame = self._show.furniture, self._show.frame
        if slide.bare or slide.size is not None:
            return []
        size = FURNITURE_PX * scale_of(frame)
        margin, top = frame.width_px * 0.066, frame.height_px - size * 2.1
        made = []
        for kind, words, align, x, width in (
            ("footer", furniture.footer, "start", margin, frame.width_px - margin * 2 - size * 4),
            (
                "page-number",
                str(number) if furniture.numbers else "",
                "end",
                frame.width_px - margin - size * 4,
                size * 4,
            ),
        ):
            if words:
                look = {
                    "style:font-name": self._show.theme.body_family,
                    "fo:font-size": points(size),
                    "fo:color": colour_in(self._show.theme, "@soft"),
                }
                line = el(
                    "text:p",
                    {
                        "text:style-name": self._dress.style(
                            "paragraph", {"paragraph": {"fo:text-align": align}, "text": look}
                        )
                    },
                    text=words,
                )
                style = self._dress.style(
                    "presentation", {"graphic": {"draw:stroke": "none", "draw:fill": "none", "fo:padding": "0pt"}}
                )
                place = place_of(Box(x, top, width, size * 1.4))
                made.append(
                    el(
                        "draw:frame",
                        {"presentation:style-name": style, "presentation:class": kind, **place},
                        el("draw:text-box", {}, line),
                    )
                )
        return made

    def _page_style(self, slide: Slide, schedule: SlideSchedule, lost: set[str]) -> str:
        wipe, _ = wipe_of(slide.transition)
        by_hand = self._show.runs == "on cue" and isinstance(slide.advance, AdvanceOnCue)
        lasts = slide.transition.lasts_ms
        look = {
            "presentation:transition-type": "manual" if by_hand else "automatic",
            "presentation:duration": "" if by_hand else f"PT{max(schedule.length_ms - lasts, 0) / 1000:.3f}S",
            "presentation:transition-speed": "fast" if lasts < 600 else "medium" if lasts < 1200 else "slow",
            "presentation:visibility": "hidden" if slide.skipped else "visible",
            "presentation:background-visible": "true",
            "presentation:background-objects-visible": "true",
            "presentation:display-footer": "false" if slide.bare else "true",
            "presentation:display-page-number": "false" if slide.bare else "true",
        }
        if wipe is not None and lasts:
            look |= {
                "smil:type": wipe.type,
                "smil:subtype": wipe.subtype,
                "smil:direction": "reverse" if wipe.reverse else "forward",
            }
            look |= {"smil:fadeColor": "#000000"} if wipe.subtype == "fadeOverColor" else {}
        if slide.background is not None:
            look |= self._behind(slide.background, lost)
        sound = self._sound(slide.transition.sound, lost) if slide.transition.sound is not None else None
        return self._dress.style("drawing-page", {"drawing-page": look}, sound=sound)

    def _sound(self, sound: SoundEffect, lost: set[str]) -> Element:
        if sound.gain_db:
            lost.add("levels of sounds")
        return el(
            "presentation:sound",
            {
                "xlink:href": self._address(sound.asset_id),
                "xlink:type": "simple",
                "xlink:show": "new",
                "xlink:actuate": "onRequest",
            },
        )

    def _behind(self, ground: Background, lost: set[str]) -> dict[str, str]:
        """The properties of a page's background."""
        ground = ground_in(self._show.theme, ground)
        if isinstance(ground, ClipBackground):
            lost.add("a clip behind the slide")
            return self._dress.fill(Plain(ground.colour))
        if isinstance(ground, PictureBackground):
            return {
                "draw:fill": "bitmap",
                "draw:fill-image-name": self._dress.picture(self._address(ground.asset_id)),
                "style:repeat": "stretch",
            }
        return self._dress.fill(ground if isinstance(ground, Plain | Gradient) else None)

    def _notes(self, number: int, slide: Slide) -> Element:
        lines = [
            el("text:p", {}, text="".join(sign for sign in line if sign.isprintable()))
            for line in slide.notes.splitlines()
        ]
        width, height = 794.0, 1123.0
        thumbnail = {
            "draw:page-number": str(number),
            "presentation:class": "page",
            "svg:x": points(97),
            "svg:y": points(80),
            "svg:width": points(600),
            "svg:height": points(400),
        }
        box = {
            "presentation:class": "notes",
            "svg:x": points(80),
            "svg:y": points(530),
            "svg:width": points(width - 160),
            "svg:height": points(height - 600),
        }
        if not lines:
            box["presentation:placeholder"] = "true"
        style = {"presentation:style-name": "Ritornel-notes"}
        return el(
            "presentation:notes",
            {},
            el("draw:page-thumbnail", thumbnail),
            el("draw:frame", {**style, **box}, el("draw:text-box", {}, *lines)),
        )

    def _styles(self) -> bytes:
        theme, frame = self._show.theme, self._show.frame
        words = {
            "style:font-name": theme.body_family,
            "fo:font-size": points(theme.body_px),
            "fo:color": colour_in(theme, "@words"),
        }
        default = el(
            "style:default-style",
            {"style:family": "graphic"},
            el("style:graphic-properties", {"draw:stroke": "none", "draw:fill": "none"}),
            el("style:paragraph-properties", {}),
            el("style:text-properties", words),
        )
        named = [
            el(
                "style:style",
                {"style:name": f"Ritornel-{kind}", "style:family": "presentation"},
                el("style:text-properties", {"fo:font-size": points(px)}),
            )
            for kind, px in (
                ("title", theme.heading_px),
                ("subtitle", theme.body_px),
                ("outline1", theme.body_px),
                ("notes", 18),
            )
        ]
        page = {
            "fo:page-width": points(frame.width_px),
            "fo:page-height": points(frame.height_px),
            "fo:margin": "0pt",
            "style:print-orientation": "landscape" if frame.width_px >= frame.height_px else "portrait",
        }
        masters = self._dress.beside()
        pages = []
        for (ground, ornaments), name in self._masters.items():
            lost: set[str] = set()
            style = masters.style("drawing-page", {"drawing-page": self._behind(ground, lost)})
            self._losses += [Loss(0, words) for words in sorted(lost)]
            made = [self._ornament(entry, masters) for entry in ornaments]
            pages.append(
                el(
                    "style:master-page",
                    {"style:name": name, "style:page-layout-name": "Page", "draw:style-name": style},
                    *made,
                )
            )
        automatic = [
            el("style:page-layout", {"style:name": "Page"}, el("style:page-layout-properties", page)),
            *masters.automatic(),
        ]
        return document(
            "office:document-styles",
            self._fonts(),
            el("office:styles", {}, *self._dress.common(), default, *named),
            el("office:automatic-styles", {}, *automatic),
            el("office:master-styles", {}, *pages),
        )

    def _ornament(self, entry: Ornament, dress: Dress) -> Element:
        frame = self._show.frame
        place = {
            "svg:x": entry.x * frame.width_px,
            "svg:y": entry.y * frame.height_px,
            "svg:width": entry.width * frame.width_px,
            "svg:height": entry.height * frame.height_px,
        }
        style = dress.style(
            "graphic",
            {"graphic": {"draw:stroke": "none", **dress.fill(Plain(colour_in(self._show.theme, entry.colour)))}},
        )
        return el(
            f"draw:{'rect' if entry.form == 'rectangle' else 'ellipse'}",
            {"draw:style-name": style, **{key: points(value) for key, value in place.items()}},
        )


def _page_names(show: Show) -> dict[str, str]:
    """A unique name for each page, since links use them."""
    names: dict[str, str] = {}
    taken: set[str] = set()
    for number, slide in enumerate(show.slides, 1):
        name = "".join(sign for sign in slide.name if sign.isprintable()).strip() or f"Slide {number}"
        names[slide.id] = name if name not in taken else f"{name} ({number})"
        taken.add(names[slide.id])
    return names


def _whole(show: Show) -> list[str]:
    """The losses of the show as a whole."""
    told = {
        "music and ambience": bool(show.music),
        "last waits, which become times": show.runs == "self-running"
        and any(isinstance(slide.advance, AdvanceOnCue) for slide in show.slides),
        "named marks": bool(show.marks),
        "sections: their slides are all there": any(slide.opens_section for slide in show.slides),
        "the mark on every slide": bool(show.furniture.mark_asset_id),
        "the end in black": show.end == "black",
        "letters themselves: whoever opens it needs the fonts": True,
        "the theme: its colours are there, but slides follow it no more": True,
    }
    return [words for words, is_so in told.items() if is_so]


def _meta(show: Show) -> bytes:
    title = "".join(sign for sign in show.title if sign.isprintable())
    return document(
        "office:document-meta", el("office:meta", {}, el("meta:generator", text="Ritornel"), el("dc:title", text=title))
    )


def _manifest(media: tuple[tuple[str, Asset], ...]) -> bytes:
    entries = [
        ("/", MEDIA_TYPE),
        ("content.xml", "text/xml"),
        ("styles.xml", "text/xml"),
        ("meta.xml", "text/xml"),
        *((place, asset.media_type) for place, asset in media),
    ]
    root = el(
        "manifest:manifest",
        {"xmlns:manifest": SPACES["manifest"], "manifest:version": VERSION},
        *(
            el(
                "manifest:file-entry",
                {
                    "manifest:full-path": place,
                    "manifest:media-type": kind,
                    "manifest:version": VERSION if place == "/" else "",
                },
            )
            for place, kind in entries
        ),
    )
    return b'<?xml version="1.0" encoding="UTF-8"?>\n' + bytes(tostring(root, encoding="utf-8"))
