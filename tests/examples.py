"""Shows that several tests use: the worked examples of the domain, and small pieces of Orlmere."""

from typing import Any

from ritornel.core.document import (
    AdvanceAfter,
    AdvanceOnCue,
    Asset,
    Box,
    Build,
    Follows,
    MusicSpan,
    OnCue,
    Paragraph,
    Shape,
    Show,
    Slide,
    Text,
    TextRun,
    Together,
    Transition,
)

BOX = Box(100, 100, 300, 80)


def shape(object_id: str, **more: Any) -> Shape:
    return Shape(object_id, object_id.title(), BOX, "rectangle", **more)


def text(object_id: str, *lines: str, **more: Any) -> Text:
    paragraphs = tuple(Paragraph(f"{object_id}-{n}", (TextRun(line),)) for n, line in enumerate(lines, 1))
    return Text(object_id, object_id.title(), BOX, paragraphs=paragraphs, **more)


def sound(asset_id: str = "waltz", lasts_ms: int = 12_000) -> Asset:
    return Asset(asset_id, "Waltz", "ab" * 32, "audio/ogg", size_bytes=1000, lasts_ms=lasts_ms)


def example_a(**more: Any) -> Show:
    """Worked example A, its third slide without the clip: a build of 18 200 ms stands for it, so all lengths are the
    same.
    """
    one = Slide(
        "one",
        "One",
        transition=Transition("dissolve", 800),
        advance=AdvanceAfter(5000),
        objects=(shape("title"), shape("picture")),
        order=(
            Build(id="t", object_id="title", effect="enters fade", starts=Follows(), after_ms=0, lasts_ms=600),
            Build(id="p", object_id="picture", effect="enters fade", starts=Together(), after_ms=200, lasts_ms=1000),
        ),
    )
    two = Slide(
        "two",
        "Two",
        transition=Transition("push", 500),
        advance=AdvanceOnCue("out"),
        objects=tuple(shape(name) for name in "abcd"),
        order=(
            Build(id="A", object_id="a", effect="enters fade", starts=OnCue("first"), after_ms=0, lasts_ms=400),
            Build(id="B", object_id="b", effect="enters fade", starts=Follows(), after_ms=100, lasts_ms=300),
            Build(id="C", object_id="c", effect="enters fade", starts=Together(), after_ms=0, lasts_ms=600),
            Build(id="D", object_id="d", effect="enters fade", starts=OnCue("second", 3500), after_ms=0, lasts_ms=200),
        ),
    )
    three = Slide(
        "three",
        "Three",
        advance=AdvanceAfter(10_000),
        objects=(shape("long"),),
        order=(Build(id="L", object_id="long", effect="accents pulse", starts=Follows(), after_ms=0, lasts_ms=18_200),),
    )
    return Show("a", "Example A", slides=(one, two, three), **more)


def with_music(show: Show, **more: Any) -> Show:
    import msgspec

    return msgspec.structs.replace(show, music=(MusicSpan(id="m", asset_id="waltz", **more),), assets=(sound(),))
