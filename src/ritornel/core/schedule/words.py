"""The text of a slide for people who do not see it: its texts, and the text alternatives of its pictures."""

from collections.abc import Iterator

from ritornel.core.document.objects import Object, Picture, TextHolder
from ritornel.core.document.show import Slide
from ritornel.core.motion.catalogue import EFFECTS
from ritornel.core.schedule.slide_schedule import SlideSchedule


def _read(text: str) -> str:
    """A paragraph as it is read aloud: the cells of a table's row with commas between them, without empty ones."""
    return ", ".join(cell.strip() for cell in text.split("\t") if cell.strip()) if "\t" in text else text


def _parts_of(item: Object) -> Iterator[tuple[str | None, str]]:
    """Each paragraph with words and its id, or a picture's alternative."""
    if isinstance(item, TextHolder):
        yield from ((paragraph.id, _read(paragraph.text)) for paragraph in item.paragraphs if paragraph.text.strip())
    elif isinstance(item, Picture) and item.alternative:
        yield None, item.alternative


def words_on(slide: Slide) -> str:
    """All text of the slide in stacking order, one line each."""
    return "\n".join(words for item in slide.objects for _, words in _parts_of(item))


def words_of_beats(slide: Slide, schedule: SlideSchedule) -> tuple[str, ...]:
    """The text that is new on each beat, one line each, in reading order: from the top, and from the left where two
    objects begin at one height.

    Text without an entering build is there on arrival, beat 0. A list whose second line enters on cue 1:
    ("The teeth\\nOne tooth at a time", "The pallets let it go").
    """
    comes: dict[tuple[str, str | None], int] = {}
    for build, time in zip(slide.order, schedule.builds, strict=True):
        if EFFECTS[build.effect].kind == "enters":
            comes.setdefault((build.object_id, build.part), time.beat)
    beats: list[list[str]] = [[] for _ in schedule.beats]
    for item in sorted(slide.objects, key=lambda item: (item.box.y, item.box.x)):
        whole = comes.get((item.id, None), 0)
        for part, words in _parts_of(item):
            beats[comes.get((item.id, part), whole)].append(words)
    return tuple("\n".join(words) for words in beats)
