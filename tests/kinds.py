"""A show with every kind of object, fill, border, shadow, crop, list and bubble, for what both painters have to draw
alike.
"""

from typing import Any

import msgspec

from ritornel.core.document import (
    AdvanceAfter,
    Box,
    Build,
    Frame,
    Gradient,
    Paragraph,
    Picture,
    Plain,
    Shape,
    Show,
    Slide,
    Stroke,
    Text,
    TextRun,
    Together,
    Transition,
)
from ritornel.core.document.drifts import set_drift
from ritornel.core.document.objects import Crop, PictureBackground, Shadow, Table, TableColumn
from ritornel.core.document.show import Framing
from ritornel.core.document.theme import Furniture
from ritornel.core.document.themes import VERDIGRIS
from ritornel.core.motion.catalogue import EFFECTS, TRANSITIONS
from ritornel.demo.orlmere import media

HEBREW, ARABIC = (
    ("\u05e9\u05e2\u05d5\u05df \u05d4\u05de\u05d2\u05d3\u05dc"),
    "\u0633\u0627\u0639\u0629 \u0627\u0644\u0628\u0631\u062c",
)
WAVE = "M 0 0.5 C 0.2 0 0.3 0 0.5 0.5 C 0.7 1 0.8 1 1 0.5"
LEAF = "M 0 0.5 C 0.1 0 0.9 0 1 0.5 C 0.9 1 0.1 1 0 0.5 Z"


def at(column: int, row: int, width: float = 180, height: float = 150, turn: float = 0) -> Box:
    return Box(40 + column * 205, 40 + row * 220, width, height, turn)


def line(number: int, *runs: TextRun | str, **more: Any) -> Paragraph:
    return Paragraph(f"p{number}", tuple(TextRun(run) if isinstance(run, str) else run for run in runs), **more)


def forms() -> Slide:
    names: tuple[Any, ...] = (
        "rectangle",
        "ellipse",
        "line",
        "arrow",
        "polygon",
        "star",
        "ring",
        "arch",
        "wheel",
        "bracket",
        "path",
        "rectangle",
    )
    items = [
        Shape(
            f"f{n}",
            form,
            at(n % 6, n // 6),
            form,
            fill=None if form in ("line", "bracket") else Plain("@second"),
            stroke=Stroke("@accent", 4),
            points=7,
            hollow=0.55,
            path=LEAF if form == "path" else "",
            corner_px=30 if n == 11 else 0,
            heads="both" if form == "line" else "none",
        )
        for n, form in enumerate(names)
    ]
    tails = ((0.5, 1.5), (-0.4, 0.5), (0.8, -0.6), (1.4, 0.2))
    bubbles = [
        Shape(
            f"b{n}",
            "Bubble",
            at(n, 2, 150, 100),
            "bubble",
            fill=Plain("@raised"),
            stroke=Stroke("@words", 2),
            corner_px=18,
            tail_x=x,
            tail_y=y,
        )
        for n, (x, y) in enumerate(tails)
    ]
    return Slide("forms", objects=(*items, *bubbles))


def looks() -> Slide:
    return Slide(
        "looks",
        background=Gradient("#f6f1e4", "#d5e2dd", 30),
        objects=(
            Shape("dashed", "Dashed", at(0, 0), "rectangle", stroke=Stroke("#8a2456", 5, "dashed"), corner_px=20),
            Shape(
                "dotted",
                "Dotted",
                at(1, 0),
                "ellipse",
                fill=Gradient("#edc56e", "#9a6a1c", 60),
                stroke=Stroke("#16262e", 6, "dotted"),
            ),
            Shape(
                "shadowed",
                "Shadowed",
                at(2, 0),
                "star",
                fill=Plain("#1f6f6b"),
                points=6,
                shadow=Shadow(14, 18, 24, "#00000088"),
            ),
            Shape(
                "faint",
                "Faint",
                at(3, 0),
                "wheel",
                fill=Plain("#8a2456"),
                opacity=0.4,
                points=12,
                shadow=Shadow(0, 10, 10),
            ),
            Shape("turned", "Turned", at(4, 0, turn=33), "arrow", fill=Plain("#2f4d58"), hollow=0.5),
            Shape("wave", "Wave", at(5, 0), "path", path=WAVE, stroke=Stroke("#8a2456", 7)),
            Picture("cover", "Cover", at(0, 1), "dial", corner_px=24, stroke=Stroke("#16262e", 6)),
            Picture("contain", "Contain", at(1, 1), "noon", fit="contain", stroke=Stroke("#8a2456", 3, "dashed")),
            Picture(
                "stretch", "Stretch", at(2, 1, turn=-12), "bell", fit="stretch", shadow=Shadow(8, 8, 12, "#000000aa")
            ),
            Picture("crop", "Crop", at(3, 1), "works", crop=Crop(0.3, 0.2, 0.4, 0.5)),
            Picture("flip", "Flip", at(4, 1), "works", crop=Crop(0, 0, 0.6, 1), flip_x=True),
            Picture("both", "Both", at(5, 1), "noon", flip_x=True, flip_y=True, opacity=0.7, corner_px=60),
            Picture(
                "crop-contain",
                "Crop contained",
                at(0, 2, 280, 180),
                "night",
                fit="contain",
                crop=Crop(0.5, 0.1, 0.3, 0.8),
                corner_px=12,
            ),
            Shape(
                "inside",
                "Inside",
                at(2, 2, 240, 190),
                "ellipse",
                fill=Plain("#fffdf6"),
                stroke=Stroke("#16262e", 2),
                size_px=24,
                align="centre",
                stand="middle",
                paragraphs=(line(1, "Words in an"), line(2, "ellipse")),
            ),
            Shape(
                "inside-2",
                "Inside",
                at(4, 2, 330, 190, 8),
                "rectangle",
                fill=Plain("#16262e"),
                colour="#f6f1e4",
                size_px=60,
                overflow="shrink",
                paragraphs=(
                    line(1, "Words that shrink until all of them are in their box", list="bullets"),
                    line(2, "both of them", list="bullets"),
                ),
            ),
        ),
    )


def words() -> Slide:
    runs = (
        TextRun("plain, "),
        TextRun("bold", weight=700),
        TextRun(" and italic, ", italic=True),
        TextRun("underlined", underline=True),
        TextRun(" "),
        TextRun("marked", highlight="#ffd25e"),
        TextRun(", "),
        TextRun("a link", link="https://tower.orlmere.example/", colour="@accent"),
    )
    lists = [
        ("bullets", 0),
        ("bullets", 1),
        ("bullets", 2),
        ("numbers", 0),
        ("numbers", 1),
        ("numbers", 1),
        ("numbers", 0),
        ("none", 0),
    ]
    outline = Stroke("@accent", 3)
    return Slide(
        "words",
        objects=(
            Text("runs", "Runs", Box(40, 30, 700, 90), paragraphs=(line(1, *runs),), size_px=32),
            Text(
                "lists",
                "Lists",
                Box(40, 140, 420, 420),
                size_px=26,
                family="Fira Sans",
                paragraphs=tuple(
                    line(n, f"Line {n} of a list with levels", list=kind, level=level)
                    for n, (kind, level) in enumerate(lists)
                ),
            ),
            Text(
                "hollow",
                "Hollow",
                Box(500, 140, 740, 130),
                paragraphs=(line(1, "HOLLOW NOON"),),
                size_px=96,
                weight=700,
                colour=None,
                outline=outline,
            ),
            Text(
                "outlined",
                "Outlined",
                Box(500, 270, 740, 90),
                paragraphs=(line(1, "outlined"),),
                size_px=64,
                outline=Stroke("#16262e", 2),
                align="right",
            ),
            Text(
                "rtl",
                "From the right",
                Box(500, 370, 740, 150),
                paragraphs=(
                    line(1, f"{HEBREW} (78) tower"),
                    line(2, f"{ARABIC} 1712"),
                    line(3, f"clock {HEBREW} clock"),
                ),
                size_px=34,
            ),
            Text(
                "turned",
                "Turned",
                Box(500, 540, 330, 120, -8),
                paragraphs=(line(1, "Turned, with a shadow"),),
                size_px=40,
                italic=True,
                family="EB Garamond",
                shadow=Shadow(4, 6, 6, "#8a2456"),
            ),
            Text(
                "grows",
                "Grows",
                Box(860, 540, 380, 10),
                paragraphs=(line(1, "Grows with its lines, however few px its box has."),),
                size_px=26,
                overflow="grow",
                highlight="@raised",
            ),
        ),
    )


def rows(*texts: str) -> tuple[Paragraph, ...]:
    return tuple(line(number, text) for number, text in enumerate(texts, 1))


def tables() -> Slide:
    year = TableColumn(1.0, "right")
    return Slide(
        "tables",
        objects=(
            Table(
                "bells",
                "Bells",
                Box(40, 40, 620, 400),
                paragraphs=rows("Bell\tNote\tCast", "The great bell\tD\t1712", "The quarter\tA\t1784", "Old\t\t?"),
                columns=(TableColumn(2.0), TableColumn(1.0, "centre"), year),
                band_fill="#d5e2dd",
                size_px=28,
            ),
            Table(
                "short",
                "Short",
                Box(700, 40, 400, 120, 6),
                paragraphs=rows("Words that go on in their cell\tuntil all of them are in the box", "and\tanother"),
                heading=False,
                overflow="shrink",
                stroke=Stroke("#8a2456", 3, "dashed"),
                size_px=40,
            ),
            Table(
                "grown",
                "Grown",
                Box(700, 240, 500, 10),
                paragraphs=(
                    line(1, "One"),
                    line(2, TextRun("bold", weight=700), "\t", TextRun("link", colour="@accent")),
                ),
                heading_fill=None,
                stroke=None,
                overflow="grow",
                stand="middle",
            ),
        ),
    )


def grounds() -> Slide:
    return Slide(
        "ground",
        background=PictureBackground("noon", 0.55, "#12312f"),
        layout="heading",
        objects=(
            Text(
                "t",
                "T",
                Box(84, 76, 1100, 80),
                paragraphs=(line(1, "On a veiled picture"),),
                size_px=54,
                colour="#ffffff",
            ),
        ),
    )


def every_kind() -> Show:
    """Slides at rest, in a dark theme with a footer, numbers and a mark."""
    assets = tuple(asset for asset, _ in media().values())
    slides = (forms(), looks(), words(), tables(), grounds(), Slide("opening", layout="title"))
    timed = tuple(
        slide.__class__(
            **{**{name: getattr(slide, name) for name in slide.__struct_fields__}, "advance": AdvanceAfter(1000)}
        )
        for slide in slides
    )
    return Show(
        "kinds",
        "Every kind",
        theme=VERDIGRIS,
        furniture=Furniture("Footer of the show", True, "dial"),
        slides=timed,
        assets=assets,
    )


def every_effect() -> Show:
    """One slide an effect, on a text of two paragraphs, a shape and a picture, and one slide a transition."""
    text = Text(
        "t",
        "Text",
        Box(60, 60, 560, 200),
        paragraphs=(line(1, "Seventy-eight turns"), line(2, TextRun("of the crank", highlight="#ffd25e"))),
        size_px=48,
    )
    shape = Shape(
        "s", "Shape", Box(700, 120, 240, 240), "wheel", fill=Plain("@second"), stroke=Stroke("@words", 5), points=12
    )
    photo = Picture("p", "Picture", Box(200, 380, 420, 280), "dial", corner_px=20)
    slides = []
    for number, effect in enumerate(EFFECTS.values()):
        order = tuple(
            Build(
                id=f"{object_id}{number}",
                object_id=object_id,
                effect=effect.name,
                starts=Together(),
                after_ms=0,
                lasts_ms=1200,
                part="p2" if object_id == "t" and number % 2 else None,
                repeats=effect.repeats,
            )
            for object_id in ("t", "s", "p")
        )
        look: dict[str, Any] = {"objects": (text, shape, photo), "order": order}
        if effect.kind == "views":
            flight = Build(
                id="flight",
                object_id="wheel",
                effect=effect.name,
                starts=Together(),
                after_ms=0,
                lasts_ms=1200,
                settings={"length": "set"},
            )
            look |= {
                "order": (flight,),
                "size": Frame(2000, 1000),
                "framings": (Framing("wheel", "Wheel", 820.0, 240.0, 400.0, 20.0),),
            }
        slides.append(Slide(f"e{number}", effect.name, advance=AdvanceAfter(2000), **look))
    ways: tuple[Any, ...] = ("closer", "right", "up")
    drifting = tuple(
        set_drift(
            Picture(f"d{n}", way, Box(40 + n * 410, 120, 380, 460, n * 7), "noon", corner_px=n * 16, flip_x=n == 1), way
        )
        for n, way in enumerate(ways)
    )
    slides.append(Slide("drift", "drift", objects=drifting, advance=AdvanceAfter(2000)))
    ground = Gradient("#f6f1e4", "#8fb2ae", 40)
    for number, kind in enumerate(TRANSITIONS.values()):
        # A carry takes the picture to another place; everything else leaves it where it is.
        there = msgspec.structs.replace(photo, box=Box(700, 60, 300, 200, 12)) if kind.name == "carry" else photo
        look = {"background": ground if number % 2 else None, "transition": Transition(kind.name, kind.lasts_ms)}
        slides.append(Slide(f"t{number}", kind.name, objects=(shape, there), advance=AdvanceAfter(2000), **look))
    assets = tuple(asset for asset, _ in media().values())
    return Show("effects", "Every effect", slides=tuple(slides), assets=assets)
