"""A page of a presentation as a slide: its objects from the back, its notes, its transition and its running order."""

from types import MappingProxyType
from xml.etree.ElementTree import Element

from ritornel.core.document.objects import Background, Clip, ClipBackground, PictureBackground, Plain
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, Slide, SoundEffect, Transition, Voice
from ritornel.core.document.theme import Furniture
from ritornel.core.formats.opendocument.fills import gradient_of
from ritornel.core.formats.opendocument.names import attribute_of, children_of, colour, duration_ms, full
from ritornel.core.formats.opendocument.read_builds import PageContent, main_sequence, order_of
from ritornel.core.formats.opendocument.read_objects import ObjectReader, Source, lay_out
from ritornel.core.formats.opendocument.read_text import Words
from ritornel.core.formats.opendocument.styles import Properties, StyleProperties
from ritornel.core.formats.opendocument.transitions import SmilTransition, transition_of
from ritornel.core.motion.catalogue import TRANSITIONS

SPEEDS_MS = MappingProxyType({"slow": 1600, "medium": 800, "fast": 400})
USUAL_MS = 800


class PageReader:
    """Reads one page. Losses go to `lost`."""

    def __init__(self, source: Source, page: Element, slide_id: str, lost: set[str]) -> None:
        self._source, self._page, self._slide_id, self._lost = source, page, slide_id, lost
        self._master = source.styles.masters.get(attribute_of(page, "draw:master-page-name"))

    def slide(self) -> tuple[Slide, Furniture]:
        """The slide, and the furniture of the page."""
        look = self._source.styles.look("drawing-page", attribute_of(self._page, "draw:style-name")).page
        standing = ObjectReader(
            self._source,
            attribute_of(self._master, "style:name") if self._master is not None else "",
            self._slide_id,
            self._lost,
        )
        if self._master is not None and look.get("presentation:background-objects-visible", "true") != "false":
            standing.take_master(self._master)
        standing.take(self._page)
        timing = main_sequence(self._page)
        if timing.interactive:
            self._lost.add("builds that a press on an object sets off")
        transition = self._transition(look, timing.transition_ms)
        clips = frozenset(item.id for item in standing.objects if isinstance(item, Clip))
        scene = PageContent(standing.targets, clips, self._source.frame, self._effect)
        layout, objects = lay_out(standing.objects, standing.classes)
        slide = Slide(
            self._slide_id,
            attribute_of(self._page, "draw:name")[:200],
            background=self._ground(look, attribute_of(self._page, "draw:style-name"), False),
            transition=transition,
            advance=self._advance(look, transition),
            objects=objects,
            order=order_of(timing.entries, scene, self._slide_id, self._lost),
            voice=self._voice(timing.voice),
            notes=self._notes(),
            skipped=look.get("presentation:visibility") == "hidden",
            layout=layout,
            bare=not standing.footer and not standing.numbered,
        )
        return slide, Furniture(standing.footer[:300], standing.numbered)

    def _advance(self, look: Properties, transition: Transition) -> AdvanceAfter | AdvanceOnCue:
        if look.get("presentation:transition-type", "manual") == "manual":
            return AdvanceOnCue(f"{self._slide_id}-on")
        return AdvanceAfter(
            min(transition.lasts_ms + (duration_ms(look.get("presentation:duration", "")) or 0), 86_400_000)
        )

    def _transition(self, look: Properties, lasts_ms: int | None) -> Transition:
        kind = look.get("smil:type", "")
        if not kind:
            if look.get("presentation:transition-style", "none") != "none":
                self._lost.add("a transition of an older kind, which becomes “Dissolve”")
                return Transition(
                    "dissolve",
                    SPEEDS_MS.get(look.get("presentation:transition-speed", ""), USUAL_MS),
                    sound=self._page_sound(),
                )
            return Transition(sound=self._page_sound())
        name, settings, same = transition_of(
            SmilTransition(kind, look.get("smil:subtype", ""), look.get("smil:direction") == "reverse")
        )
        if not same:
            self._lost.add(f"the transition “{kind}”, which becomes “{TRANSITIONS[name].title}”")
        lasts = (
            lasts_ms if lasts_ms is not None else SPEEDS_MS.get(look.get("presentation:transition-speed", ""), USUAL_MS)
        )
        return Transition(name, min(lasts, 60_000), settings=settings, sound=self._page_sound())

    def _page_sound(self) -> SoundEffect | None:
        style = self._source.styles.style("drawing-page", attribute_of(self._page, "draw:style-name"))
        for found in style.iter(full("presentation:sound")) if style is not None else ():
            asset = self._source.shelf.asset(attribute_of(found, "xlink:href"), "", self._lost)
            if asset is not None and asset.kind == "sound":
                return SoundEffect(asset.id, keeps_on=attribute_of(found, "presentation:play-full") == "true")
        return None

    def _ground(self, look: Properties, name: str, on_master: bool) -> Background | None:
        """The background of the page: its own, else its master's."""
        styles = self._source.styles
        match look.get("draw:fill", ""):
            case "solid":
                return Plain(colour(look.get("draw:fill-color", "")) or "#ffffff")
            case "gradient":
                entry = styles.named("draw:gradient", look.get("draw:fill-gradient-name", ""))
                return gradient_of(entry) if entry is not None else None
            case "bitmap":
                entry = styles.named("draw:fill-image", look.get("draw:fill-image-name", ""))
                asset = (
                    self._source.shelf.asset(attribute_of(entry, "xlink:href"), "Background", self._lost)
                    if entry is not None
                    else None
                )
                return (
                    (PictureBackground(asset.id) if asset.kind == "picture" else ClipBackground(asset.id))
                    if asset is not None and asset.kind != "sound"
                    else None
                )
        if on_master or self._master is None:
            return Plain("#ffffff")
        if look.get("presentation:background-visible") == "false":
            return Plain("#ffffff")
        above = attribute_of(self._master, "draw:style-name")
        return self._ground(styles.look("drawing-page", above, True).page, above, True)

    def _notes(self) -> str:
        lines: list[str] = []
        for notes in children_of(self._page, "presentation:notes"):
            for frame in notes.iter(full("draw:frame")):
                if (
                    attribute_of(frame, "presentation:class") == "notes"
                    and attribute_of(frame, "presentation:placeholder") != "true"
                ):
                    for box in children_of(frame, "draw:text-box"):
                        words = Words(self._source.styles, False, lambda level: StyleProperties(), set())
                        lines += ["".join(piece.text for piece in line.pieces).strip() for line in words.lines(box)]
        return "\n".join(lines).strip()[:100_000]

    def _effect(self, address: str) -> SoundEffect | None:
        asset = self._source.shelf.asset(address, "", self._lost)
        return SoundEffect(asset.id) if asset is not None and asset.kind == "sound" else None

    def _voice(self, found: tuple[str, int] | None) -> Voice | None:
        """A sound that begins with the page becomes the slide's voice."""
        asset = self._source.shelf.asset(found[0], "", self._lost) if found is not None else None
        return (
            Voice(asset.id, asset.lasts_ms, offset_ms=found[1])
            if found is not None and asset is not None and asset.kind == "sound"
            else None
        )
