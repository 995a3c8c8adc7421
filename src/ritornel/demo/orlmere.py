"""The Orlmere clock, as a show."""

from collections.abc import Mapping
from functools import cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

from ritornel.core.document.objects import (
    Box,
    Gradient,
    Object,
    Paragraph,
    Picture,
    Plain,
    Shape,
    Stroke,
    Text,
    TextRun,
)
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceOnCue,
    Asset,
    Build,
    Follows,
    MusicSpan,
    OnCue,
    Show,
    Slide,
    Together,
    Transition,
)
from ritornel.core.formats.media import Limits, asset_from, read_medium

MEDIA = Path(__file__).parent / "media"
INK, PLUM, SLATE = "@words", "@accent", "@soft"
NIGHT = Gradient("#1d3c46", "#101a1f", 70)
CREDIT: dict[str, Any] = {"author": "The Ritornel makers", "licence": "Made for Ritornel, shipped with it"}
FILES = {
    "noon": ("tower-noon.jpg", "The tower at noon"),
    "night": ("tower-night.jpg", "The tower at night"),
    "works": ("works.jpg", "The going train"),
    "bell": ("bell.jpg", "The hour bell"),
    "dial": ("dial.jpg", "The mended dial"),
    "waltz": ("winders-waltz.ogg", "Winders' waltz"),
}


@cache
def media() -> Mapping[str, tuple[Asset, bytes]]:
    """The demo's assets with their bytes, by id.

    They ship and never change, so their sounds are measured once a process.
    """
    result = {}
    for asset_id, (file, name) in FILES.items():
        medium = read_medium(MEDIA / file, Limits())
        result[asset_id] = (asset_from(medium, asset_id, name, **CREDIT), medium.data)
    return MappingProxyType(result)


def words(object_id: str, name: str, box: Box, *lines: str, size: float = 30, **look: Any) -> Text:
    """A text of one paragraph a line."""
    paragraphs = tuple(Paragraph(f"{object_id}-{n}", (TextRun(line),)) for n, line in enumerate(lines, 1))
    return Text(object_id, name, box, paragraphs=paragraphs, size_px=size, colour=look.pop("colour", INK), **look)


def heading(object_id: str, line: str, **look: Any) -> Text:
    """The heading at the place all slides share."""
    return words(
        object_id,
        "Heading",
        look.pop("box", Box(84, 76, 640, 74)),
        line,
        size=54,
        weight=600,
        family="@heading",
        **look,
    )


def picture(object_id: str, name: str, asset_id: str, box: Box, alternative: str, corner: float = 0) -> Picture:
    return Picture(object_id, name, box, asset_id, corner_px=corner, alternative=alternative)


def build(name: str, object_id: str, effect: str, starts: Any, after: int = 0, lasts: int = 600, **more: Any) -> Build:
    return Build(id=name, object_id=object_id, effect=effect, starts=starts, after_ms=after, lasts_ms=lasts, **more)


def slides() -> tuple[Slide, ...]:
    """All slides in order."""
    full = Box(0, 0, 1280, 720)
    opening: tuple[Object, ...] = (
        picture(
            "noon-1", "Tower at noon", "noon", full, "The clock tower of Orlmere at noon, over the roofs of the town"
        ),
        Shape("band", "Band", Box(0, 500, 1280, 220), "rectangle", fill=Gradient("#16262e00", "#16262ee6", 90)),
        words("title", "Title", Box(84, 560, 900, 80), "The Orlmere clock", size=64, weight=600, colour="#ffffff"),
        words(
            "under",
            "Line",
            Box(84, 640, 900, 44),
            "How eleven volunteers made it go again",
            size=27,
            italic=True,
            colour="#f6f1e4",
        ),
    )
    who: tuple[Object, ...] = (
        heading("who-h", "Who winds it?", colour="#f6f1e4"),
        words(
            "who-t",
            "Answer",
            Box(84, 190, 560, 330),
            "Nobody did, for thirty years.",
            "Now eleven of us take turns:",
            "seventy-eight turns of the crank, every second evening.",
            size=32,
            line_spacing=1.3,
            paragraph_gap=0.55,
            colour="#dfe7e3",
        ),
        Shape(
            "drum",
            "Drum",
            Box(790, 190, 340, 340),
            "wheel",
            fill=Gradient("#edc56e", "#9a6a1c", 90),
            points=36,
            hollow=0.7,
        ),
        Shape("hub", "Hub", Box(916, 316, 88, 88), "ellipse", fill=Plain("#d9b06a")),
        Shape("crank", "Crank", Box(952, 348, 190, 24), "rectangle", fill=Plain("#c3d0d2"), corner_px=12),
    )
    escapement: tuple[Object, ...] = (
        heading("esc-h", "The escapement"),
        words(
            "esc-t",
            "Explanation",
            Box(84, 164, 520, 90),
            "lets one tooth pass",
            "for every swing",
            size=32,
            line_spacing=1.3,
            colour=SLATE,
        ),
        Shape(
            "wheel",
            "Wheel",
            Box(700, 190, 430, 430),
            "wheel",
            fill=Plain("#d9b676"),
            stroke=Stroke("#8a642c", 2),
            points=15,
            hollow=0.68,
        ),
        Shape("axle", "Axle", Box(875, 365, 80, 80), "ellipse", fill=Plain("#7d5a2a")),
        Shape("pallets", "Pallets", Box(780, 90, 270, 140), "arch", fill=Plain("#2f4d58"), hollow=0.72),
        Shape("pin", "Pin", Box(899, 108, 32, 32), "ellipse", fill=Plain("#c3d0d2")),
        words("ticks", "Ticks", Box(84, 560, 560, 60), "28 800 ticks a day", size=40, weight=600, colour=PLUM),
        Shape("rule", "Underline", Box(84, 622, 330, 8), "line", stroke=Stroke(PLUM, 4)),
    )
    train: tuple[Object, ...] = (
        picture(
            "train",
            "Going train",
            "works",
            Box(560, 84, 640, 552),
            "Four brass wheels of the clock, the largest with forty-eight teeth",
            10,
        ),
        heading("two-h", "Two wheels, two jobs", box=Box(84, 76, 460, 140), line_spacing=1.1),
        words(
            "two-t",
            "The great wheel",
            Box(84, 250, 430, 400),
            "The great wheel takes the weight.",
            "The small one frees a tooth each swing.",
            "One has strength, the other time.",
            size=28,
            line_spacing=1.3,
            paragraph_gap=0.7,
        ),
    )
    mended: tuple[Object, ...] = (
        heading("men-h", "What we mended"),
        words(
            "men-t",
            "List",
            Box(84, 190, 560, 420),
            "Four bearings, turned anew",
            "The rope, 31 metres of it",
            "Nine teeth, cut by hand",
            "The dial: three coats of cream",
            size=32,
            paragraph_gap=0.7,
        ),
        Shape(
            "star",
            "Spark",
            Box(760, 150, 400, 400),
            "star",
            fill=Gradient("#b9cfcb", "#7d9f9a", 60),
            points=12,
            hollow=0.82,
        ),
        words(
            "years",
            "Years",
            Box(760, 212, 400, 188),
            "6",
            size=150,
            weight=700,
            family="Alegreya",
            align="centre",
            stand="middle",
            colour="#16424a",
        ),
        words(
            "years-u",
            "Years, unit",
            Box(760, 396, 400, 50),
            "winters of work",
            size=30,
            family="Alegreya",
            italic=True,
            align="centre",
            colour="#16424a",
        ),
    )
    dial: tuple[Object, ...] = (
        picture("dial-p", "Dial", "dial", full, "The mended dial: cream, with plum-coloured hands at ten past ten"),
        Shape("card", "Card", Box(40, 500, 420, 150), "rectangle", fill=Plain("#16262ee6"), corner_px=12),
        words(
            "dial-t",
            "Caption",
            Box(66, 522, 370, 110),
            "The dial, after three coats",
            "Hands by Ines Varr",
            size=28,
            line_spacing=1.35,
            colour="#f6f1e4",
        ),
    )
    bell: tuple[Object, ...] = (
        picture("bell-p", "Bell", "bell", Box(640, 0, 640, 720), "The hour bell in its arch at dusk"),
        heading("bell-h", "The bell", colour="#f6f1e4"),
        words(
            "bell-t",
            "Cast in Orlmere",
            Box(84, 190, 500, 300),
            "Cast in Orlmere, cracked by frost,",
            "welded by Pauwel Drees one night.",
            size=32,
            line_spacing=1.35,
            paragraph_gap=0.5,
            colour="#dccfd8",
        ),
        words(
            "note", "Its note", Box(84, 540, 480, 60), "It sounds an F, nearly.", size=36, italic=True, colour="#edc56e"
        ),
    )
    night: tuple[Object, ...] = (
        picture(
            "night-p", "Tower at night", "night", full, "The tower at a quarter to ten in the evening, windows lit"
        ),
        Shape("night-band", "Band", Box(0, 500, 1280, 220), "rectangle", fill=Gradient("#101c3300", "#101c33e6", 90)),
        words(
            "night-t",
            "Line",
            Box(84, 560, 760, 100),
            "It has not stopped since.",
            size=52,
            weight=600,
            colour="#ffffff",
        ),
    )
    thanks: tuple[Object, ...] = (
        words(
            "thx-h", "Heading", Box(140, 130, 1000, 90), "Come and wind it with us", size=60, weight=600, align="centre"
        ),
        words(
            "thx-t",
            "When",
            Box(140, 250, 1000, 60),
            "Second evenings, at the tower door, half past six",
            size=32,
            align="centre",
            colour=SLATE,
        ),
        Shape("thx-r", "Rule", Box(540, 356, 200, 6), "line", stroke=Stroke(PLUM, 3)),
        words(
            "thx-c",
            "Credits",
            Box(140, 400, 1000, 190),
            "Ines Varr · Pauwel Drees · Tamsin Roake · Odo Lint",
            "and seven more",
            "Music: the Winders' waltz",
            size=27,
            line_spacing=1.45,
            align="centre",
            family="Hanken Grotesk",
        ),
    )
    on_cue, cut = AdvanceOnCue, Transition()
    return (
        Slide(
            "noon-s",
            "Orlmere at noon",
            opens_section="The town",
            background=Plain("#e7a46f"),
            transition=Transition("dissolve", 800),
            advance=AdvanceAfter(6000),
            objects=opening,
            order=(
                build("b-title", "title", "enters rise", Follows(), 200, 800),
                build("b-under", "under", "enters fade", Together(), 500, 700),
            ),
        ),
        Slide(
            "who-s",
            "Who winds it?",
            background=NIGHT,
            transition=Transition("push", 700),
            advance=on_cue("q-who-out", 2500),
            objects=who,
            order=(
                build("b-who-1", "who-t", "enters fade", Follows(), 0, 600, part="who-t-1"),
                build("b-who-2", "who-t", "enters rise", OnCue("q-who-1", 2600), 0, 600, part="who-t-2"),
                build("b-who-3", "who-t", "enters rise", OnCue("q-who-2"), 0, 600, part="who-t-3"),
                build(
                    "b-drum",
                    "drum",
                    "accents pulse",
                    Together(),
                    0,
                    900,
                    pace="ease in and out",
                    repeats=2,
                    settings={"swell": 0.06},
                ),
            ),
            notes="Ask the room first. Wait for a guess.\n1. Eleven of us, in turn, every second evening.\n2. "
            "Let somebody try the crank.",
        ),
        Slide(
            "esc-s",
            "The escapement",
            opens_section="How it keeps time",
            transition=Transition("dissolve", 900),
            advance=AdvanceAfter(15000),
            objects=escapement,
            order=(
                build("b-wheel", "wheel", "enters settle", Follows(), 0, 900),
                build("b-axle", "axle", "enters fade", Together(), 300, 600),
                build("b-pallets", "pallets", "enters settle", OnCue("q-esc-1", 3200), 0, 900),
                build("b-pin", "pin", "enters fade", Together(), 400, 500),
                build("b-ticks", "ticks", "enters rise", OnCue("q-esc-2", 2800), 0, 700),
                build("b-rule", "rule", "enters fade", Follows(), 100, 400),
                build("b-tick", "pin", "accents pulse", Together(), 0, 500, repeats=3, settings={"swell": 0.3}),
            ),
            notes="Left alone, the falling weight would spin this wheel to pieces.\n"
            "1. The pallets drop in and catch it: one tooth, then a wait, then the next.\n"
            "2. There and back takes three seconds, so it ticks 28 800 times a day.",
        ),
        Slide(
            "two-s",
            "Two wheels, two jobs",
            transition=cut,
            advance=on_cue("q-two-out", 2000),
            objects=train,
            order=(
                build("b-two-1", "two-t", "enters fade", Follows(), 0, 700, part="two-t-1"),
                build("b-two-2", "two-t", "enters fade", OnCue("q-two-1", 2400), 0, 700, part="two-t-2"),
                build("b-two-3", "two-t", "enters rise", OnCue("q-two-2", 3000), 0, 700, part="two-t-3"),
            ),
        ),
        Slide(
            "men-s",
            "What we mended",
            opens_section="The restoration",
            background=Gradient("#eef3ef", "#d5e2dd", 80),
            transition=Transition("push", 700, settings={"comes_from": "below"}),
            advance=AdvanceAfter(12000),
            objects=mended,
            order=(
                *(
                    build(f"b-men-{n}", "men-t", "enters rise", Follows(), 250, 500, part=f"men-t-{n}")
                    for n in range(1, 5)
                ),
                build("b-star", "star", "enters settle", OnCue("q-men-1", 1500), 0, 900),
                build("b-years", "years", "enters fade", Together(), 200, 600),
                build("b-years-u", "years-u", "enters fade", Together(), 500, 600),
            ),
        ),
        Slide(
            "dial-s",
            "The dial",
            background=Plain("#7d9f9a"),
            transition=Transition("dissolve", 1200),
            advance=AdvanceAfter(6000),
            objects=dial,
            order=(
                build("b-card", "card", "enters fade", Follows(), 400, 600),
                build("b-dial-t", "dial-t", "enters fade", Together(), 400, 600),
                build("b-card-l", "card", "leaves fade", Follows(), 2000, 500, pace="ease in"),
                build("b-dial-l", "dial-t", "leaves fade", Together(), 2000, 500, pace="ease in"),
            ),
        ),
        Slide(
            "bell-s",
            "The bell",
            opens_section="Every hour",
            background=Plain("#1b1320"),
            transition=Transition("dissolve", 1000),
            advance=AdvanceAfter(9000),
            objects=bell,
            order=(
                build("b-bell-1", "bell-t", "enters rise", Follows(), 0, 700),
                build("b-note", "note", "enters cut in", OnCue("q-bell-1", 2200), 0, 0),
                build("b-note-p", "note", "accents pulse", Follows(), 0, 700),
            ),
        ),
        Slide(
            "night-s",
            "Still going",
            background=Plain("#101c33"),
            transition=Transition("dissolve", 1500),
            advance=AdvanceAfter(6500),
            objects=night,
            order=(build("b-night", "night-t", "enters fade", Follows(), 600, 1200),),
        ),
        Slide(
            "thx-s",
            "Come and wind it",
            transition=Transition("push", 800),
            advance=AdvanceAfter(8000),
            objects=thanks,
            order=(build("b-thx-c", "thx-c", "enters fade", Follows(), 300, 900),),
        ),
    )


def orlmere(show_id: str = "orlmere") -> Show:
    """The demo show: nine slides, waits and holds, music under all of it."""
    span = MusicSpan(
        id="waltz-span", asset_id="waltz", crossfade_ms=400, fade_in_ms=1200, fade_out_ms=3500, gain_db=-7.0
    )
    return Show(
        show_id,
        "The Orlmere clock",
        end="hold",
        slides=slides(),
        music=(span,),
        assets=tuple(asset for asset, _ in media().values()),
    )
