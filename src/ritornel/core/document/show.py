"""The show: slides in order, each with its objects and running order, and the music and ambience anchored to them."""

from typing import Annotated, Any, ClassVar, Literal

import msgspec
from msgspec import Meta

from ritornel.core.document.names import Named
from ritornel.core.document.objects import Background, Id, Name, Object
from ritornel.core.document.theme import Furniture, Theme
from ritornel.core.time.milliseconds import LONGEST_MS

Time = Annotated[int, Meta(ge=0, le=LONGEST_MS)]
MediaType = Literal[
    "image/png",
    "image/jpeg",
    "image/webp",
    "image/gif",
    "audio/wav",
    "audio/mpeg",
    "audio/ogg",
    "audio/flac",
    "audio/mp4",
    "video/mp4",
    "video/webm",
]
Pace = Literal["even", "ease in", "ease out", "ease in and out"]


class Frame(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The size of the show in px. Places on slides are measured in it."""

    width_px: Annotated[int, Meta(ge=16, le=8192)] = 1280
    height_px: Annotated[int, Meta(ge=16, le=8192)] = 720


LARGEST_PX = 100_000
"""The longest side that a picture may have."""


class Asset(Named, frozen=True, gc=False, forbid_unknown_fields=True):
    """A picture, sound or clip on the shelf.

    Its bytes are found by their SHA-256, so they can never change under a show. `loudness_lufs` was measured when a
    sound came in; `silent` is a clip without sound, `heavy` one of which browsers get a lighter copy. `alternative` is
    the text alternative that new pictures of it begin with; `folder` is where it came from.
    """

    one_line_fields: ClassVar[tuple[str, ...]] = ("name", "author", "licence", "credit", "folder")

    id: Id
    name: Name
    sha256: Annotated[str, Meta(pattern=r"^[0-9a-f]{64}$")]
    media_type: MediaType
    size_bytes: Annotated[int, Meta(ge=1)]
    width_px: Annotated[int, Meta(ge=0, le=LARGEST_PX)] = 0
    height_px: Annotated[int, Meta(ge=0, le=LARGEST_PX)] = 0
    lasts_ms: Annotated[int, Meta(ge=0, le=LONGEST_MS)] = 0
    author: Name = ""
    licence: Name = ""
    credit: Annotated[str, Meta(max_length=500)] = ""
    alternative: Annotated[str, Meta(max_length=2000)] = ""
    folder: Name = ""
    loudness_lufs: Annotated[float, Meta(ge=-100, le=20)] | None = None
    silent: bool = False
    heavy: bool = False

    @property
    def kind(self) -> Literal["picture", "sound", "clip"]:
        """A clip has a size and a length, a picture only a size, a sound only a length."""
        return "sound" if not self.width_px else "clip" if self.lasts_ms else "picture"

    @property
    def heard(self) -> bool:
        """Whether it has any sound."""
        return self.lasts_ms > 0 and not self.silent


class SoundEffect(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A sound that begins with a build or a transition.

    One of a transition that `keeps_on` repeats until the next transition's sound, the start of music that ends kept
    sounds, or the end of the show.
    """

    asset_id: Id
    gain_db: Annotated[float, Meta(ge=-60, le=12)] = 0.0
    keeps_on: bool = False


class OnCue(msgspec.Struct, frozen=True, gc=False, tag_field="rule", tag="cue", forbid_unknown_fields=True):
    """Opens the next beat. The cue has an id of its own; measured holds and voice marks refer to it."""

    cue_id: Id
    hold_ms: Time | None = None


class Together(msgspec.Struct, frozen=True, gc=False, tag_field="rule", tag="together", forbid_unknown_fields=True):
    """Joins the current cluster."""


class Follows(msgspec.Struct, frozen=True, gc=False, tag_field="rule", tag="follows", forbid_unknown_fields=True):
    """Opens a new cluster. It starts when everything before it in the beat has ended."""


class Build(msgspec.Struct, frozen=True, kw_only=True, gc=False, forbid_unknown_fields=True):
    """One animation of an object, or of a part (a paragraph's id) of a text. `repeats` 0: until the slide ends."""

    id: Id
    object_id: Id
    effect: str
    starts: OnCue | Together | Follows
    after_ms: Time = 0
    lasts_ms: Time = 600
    part: Id | None = None
    pace: Pace = "ease out"
    repeats: Annotated[int, Meta(ge=0, le=1000)] = 1
    settings: dict[str, Any] = {}
    sound: SoundEffect | None = None


class Transition(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The transition from the slide before into this slide."""

    name: str = "cut"
    lasts_ms: Time = 0
    pace: Pace = "ease in and out"
    settings: dict[str, Any] = {}
    sound: SoundEffect | None = None


class AdvanceAfter(msgspec.Struct, frozen=True, tag_field="rule", tag="after", forbid_unknown_fields=True):
    """The slide goes on by itself when `after_ms` has passed and everything has finished; with `cut_short` even if
    something has not.
    """

    after_ms: Time = 5000
    cut_short: bool = False


class AdvanceOnCue(msgspec.Struct, frozen=True, tag_field="rule", tag="cue", forbid_unknown_fields=True):
    """The slide goes on at a cue. Self-running: when the hold of the last wait is over."""

    cue_id: Id
    hold_ms: Time | None = None


class AdvanceWithVoice(msgspec.Struct, frozen=True, tag_field="rule", tag="voice", forbid_unknown_fields=True):
    """The slide goes on by itself `breath_ms` after its voice has ended, and when everything else has finished."""

    breath_ms: Time = 600


class Voice(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The narration of a slide: its sound from `in_ms` to `out_ms`, heard from `offset_ms` on the slide's clock.

    `marks` say, by cue id, when each cue falls, counted from the start of the voice.
    """

    asset_id: Id
    out_ms: Annotated[int, Meta(ge=1, le=LONGEST_MS)]
    in_ms: Time = 0
    offset_ms: Time = 0
    gain_db: Annotated[float, Meta(ge=-60, le=24)] = 0.0
    marks: dict[str, Time] = {}

    @property
    def lasts_ms(self) -> int:
        """How long the voice speaks."""
        return max(self.out_ms - self.in_ms, 0)


class Link(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A pair for a carry: an object of the slide before and one of this slide."""

    before: Id
    after: Id


class Framing(Named, frozen=True, forbid_unknown_fields=True):
    """A part of a large slide that the view flies to: its middle and its width in px of the slide, and its turn
    clockwise. Its height follows from the frame's proportion.
    """

    id: Id
    name: Name
    x: float
    y: float
    width_px: Annotated[float, Meta(ge=16, le=32_768)]
    turn_deg: Annotated[float, Meta(ge=-360, le=360)] = 0.0


class Spare(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """An object without a place in the slide's layout, with its builds: kept beside the slide and not shown."""

    object: Object
    order: tuple[Build, ...] = ()


class Slide(Named, frozen=True, gc=False, forbid_unknown_fields=True):
    """One slide: its objects in stacking order from the back, and the running order of its builds.

    A `background` of None is the theme's. `bare`: without the show's furniture. `links` and `unlinks` say, for a carry
    into this slide, which objects are paired and which are not. A `size` of None is the frame's. A slide larger than
    the frame is shown whole unless it `opens_on` one of its framings; builds of the effect `views fly` move the view to
    framings. `opens_section` names the section that begins with it. With `also_live` the slide also goes on by itself
    where the show runs on cue. `spares` are kept beside it and never shown. `given_to` is the name of the person who
    makes or records it; it gives nobody access.
    """

    one_line_fields: ClassVar[tuple[str, ...]] = ("name", "opens_section", "given_to")

    id: Id
    name: Name = ""
    lineage: str = ""
    background: Background | None = None
    transition: Transition = Transition()
    advance: AdvanceAfter | AdvanceOnCue | AdvanceWithVoice = AdvanceAfter()
    objects: tuple[Object, ...] = ()
    order: tuple[Build, ...] = ()
    notes: Annotated[str, Meta(max_length=100_000)] = ""
    skipped: bool = False
    layout: Annotated[str, Meta(max_length=40)] = "blank"
    bare: bool = False
    links: tuple[Link, ...] = ()
    unlinks: tuple[Link, ...] = ()
    size: Frame | None = None
    framings: tuple[Framing, ...] = ()
    opens_on: Id | None = None
    voice: Voice | None = None
    opens_section: Name = ""
    also_live: bool = False
    spares: tuple[Spare, ...] = ()
    given_to: Name = ""

    @property
    def transition_ms(self) -> int:
        """How long the transition into the slide takes (the domain's T): 0 for a cut."""
        return self.transition.lasts_ms if self.transition.name != "cut" else 0

    def framing(self, framing_id: str) -> Framing | None:
        """The framing with this id, or None."""
        return next((framing for framing in self.framings if framing.id == framing_id), None)

    def object(self, object_id: str) -> Object | None:
        """The object with this id, or None."""
        return next((item for item in self.objects if item.id == object_id), None)


class ShowStart(msgspec.Struct, frozen=True, tag_field="at", tag="show start", forbid_unknown_fields=True):
    """The start of the show, whatever its first slide is."""


class SlideStart(msgspec.Struct, frozen=True, tag_field="at", tag="slide", forbid_unknown_fields=True):
    """The instant `offset_ms` on the clock of a slide."""

    slide_id: Id
    offset_ms: Time = 0


class ShowEnd(msgspec.Struct, frozen=True, tag_field="at", tag="show end", forbid_unknown_fields=True):
    """The end of the show."""


class SlideEnd(msgspec.Struct, frozen=True, tag_field="at", tag="slide end", forbid_unknown_fields=True):
    """The end of a slide."""

    slide_id: Id


class OwnLength(msgspec.Struct, frozen=True, tag_field="at", tag="own length", forbid_unknown_fields=True):
    """The end of the first pass of the sound."""


class MusicSpan(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A span of music or ambience, anchored to slides and never to absolute time.

    With `ducks` it sinks by `duck_db` under voices. Where a span with `ends_kept` begins, sounds that keep on end.
    """

    id: Id
    asset_id: Id
    start: ShowStart | SlideStart = ShowStart()
    end: ShowEnd | SlideEnd | OwnLength = ShowEnd()
    loops: bool = True
    crossfade_ms: Time = 0
    fade_in_ms: Time = 0
    fade_out_ms: Time = 0
    gain_db: Annotated[float, Meta(ge=-60, le=12)] = 0.0
    ducks: bool = True
    duck_db: Annotated[float, Meta(ge=0, le=60)] = 9.0
    ends_kept: bool = False


class NamedMark(Named, frozen=True, forbid_unknown_fields=True):
    """A named instant on the score, `offset_ms` on the clock of a slide. Past the slide's end it stands at that end."""

    id: Id
    name: Name
    slide_id: Id
    offset_ms: Time = 0


class Habits(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Defaults for new builds of this show: the effect that one press gives, the lengths of entrances and exits, and
    the pace of entrances (None: as each effect has it).
    """

    effect: str = "enters settle"
    lasts_ms: Time | None = None
    pace: Pace | None = None


Runs = Literal["self-running", "on cue"]

RUNS: dict[Runs, tuple[str, str]] = {
    "on cue": ("A spoken show", "You speak, and cue every step yourself."),
    "self-running": ("A self-running show", "It goes on by its times, with nobody at it."),
}
"""The two ways a show runs: what each is called, and what happens in it."""


Language = Annotated[str, Meta(pattern=r"^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$", max_length=35)]


def first_advance(runs: Runs, cue_id: str) -> AdvanceAfter | AdvanceOnCue:
    """How a new slide advances: on cue in a spoken show, after the default time in a self-running one."""
    return AdvanceOnCue(cue_id) if runs == "on cue" else AdvanceAfter()


class Show(Named, frozen=True, forbid_unknown_fields=True):
    """A whole show. `holds_by_cue` are the holds that the chosen take measured, by cue id (rule 2); `follows_take` is
    the name of that take. With `voices_live` voices are also heard where the show runs on cue; with `notes_as_captions`
    the notes are shown as captions of voices. `language` is the language of the text on the slides, as a tag (BCP 47).
    """

    one_line_fields: ClassVar[tuple[str, ...]] = ("title",)
    nameless: ClassVar[str] = "Untitled show"

    id: Id
    title: Annotated[str, Meta(min_length=1, max_length=200)]
    frame: Frame = Frame()
    default_hold_ms: Time = 2000
    end: Literal["hold", "loop", "black"] = "hold"
    runs: Runs = "self-running"
    slides: tuple[Slide, ...] = ()
    music: tuple[MusicSpan, ...] = ()
    assets: tuple[Asset, ...] = ()
    holds_by_cue: dict[str, Time] = {}
    theme: Theme = Theme()
    furniture: Furniture = Furniture()
    marks: tuple[NamedMark, ...] = ()
    habits: Habits = Habits()
    voices_live: bool = False
    follows_take: Name = ""
    language: Language = "en"
    notes_as_captions: bool = False

    @property
    def shown(self) -> tuple[Slide, ...]:
        """The slides that are shown, in order: all but the skipped ones."""
        return tuple(slide for slide in self.slides if not slide.skipped)

    @property
    def numbers(self) -> dict[str, int]:
        """The number of each slide, by id, wherever a slide has one. Shown slides are counted; a skipped one has the
        number it would have.
        """
        numbers, count = {}, 0
        for slide in self.slides:
            numbers[slide.id] = count + 1
            count += not slide.skipped
        return numbers

    def shown_before(self, slide_id: str) -> Slide | None:
        """The shown slide before this one, or None."""
        at = next(number for number, slide in enumerate(self.slides) if slide.id == slide_id)
        return next((slide for slide in reversed(self.slides[:at]) if not slide.skipped), None)

    def shown_after(self, slide_id: str) -> Slide | None:
        """The shown slide after this one, or None."""
        at = next(number for number, slide in enumerate(self.slides) if slide.id == slide_id)
        return next((slide for slide in self.slides[at + 1 :] if not slide.skipped), None)

    def slide(self, slide_id: str) -> Slide | None:
        """The slide with this id, or None."""
        return next((slide for slide in self.slides if slide.id == slide_id), None)

    def asset(self, asset_id: str) -> Asset | None:
        """The asset with this id, or None."""
        return next((asset for asset in self.assets if asset.id == asset_id), None)
