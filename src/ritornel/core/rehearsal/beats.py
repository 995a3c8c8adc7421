"""What the presenter sees of a slide's beats: what arrives in each, in words, and its notes."""

import re

import msgspec

from ritornel.core.document.objects import TextHolder
from ritornel.core.document.show import Build, Slide
from ritornel.core.motion.catalogue import effect_named
from ritornel.core.schedule.slide_schedule import SlideSchedule

WORDS_MOST = 28
VERBS = {"enters": "enters", "accents": "is accented", "travels": "travels", "leaves": "leaves", "plays": "plays"}
_NUMBERED = re.compile(r"^\s*(\d{1,3})[.)]\s+(.*)$")


class BuildWords(msgspec.Struct, frozen=True):
    """A build in words: `what` is its object and `does` what happens; `rule` is how it starts within its beat, empty
    for the first.
    """

    kind: str
    what: str
    does: str
    rule: str
    lasts_ms: int


class BeatLine(msgspec.Struct, frozen=True):
    """A beat as the Lectern shows it.

    `planned_ms` is when it begins on the self-running show's clock, `notes` what to say before the next cue.
    """

    title: str
    arrivals: tuple[BuildWords, ...]
    notes: str
    planned_ms: int


def notes_by_beat(notes: str, beats: int) -> tuple[str, ...]:
    """The notes of each beat.

    A line that begins with a number and a full stop or bracket belongs to the beat with that number, and so do the
    lines after it; lines before the first number belong to arrival, and numbers past the last beat to the last. Notes
    without numbers go to the beats line by line; the rest goes to the last.

    >>> notes_by_beat("Left alone it spins.\\n1. The pallets catch it.\\nOne tooth.\\n2) It ticks.", 3)
    ('Left alone it spins.', 'The pallets catch it.\\nOne tooth.', 'It ticks.')
    >>> notes_by_beat("One.\\nTwo.\\nThree.", 2)
    ('One.', 'Two.\\nThree.')
    """
    lines = [line.strip() for line in notes.splitlines() if line.strip()]
    found: list[list[str]] = [[] for _ in range(beats)]
    numbered = any(_NUMBERED.match(line) for line in lines)
    beat = 0
    for place, line in enumerate(lines):
        match = _NUMBERED.match(line)
        if match:
            beat, line = min(int(match[1]), beats - 1), match[2].strip()
        elif not numbered:
            beat = min(place, beats - 1)
        found[beat].append(line)
    return tuple("\n".join(entry) for entry in found)


def _shorten(words: str) -> str:
    words = " ".join(words.split())
    return words if len(words) <= WORDS_MOST else words[: WORDS_MOST - 1].rstrip() + "…"


def _target_of(slide: Slide, build: Build) -> str:
    """The target of a build: a part by its words, an object or a framing by its name."""
    framing = next((entry for entry in slide.framings if entry.id == build.object_id), None)
    if framing is not None:
        return framing.name
    item = next((entry for entry in slide.objects if entry.id == build.object_id), None)
    if item is None:
        return "the whole slide"
    if build.part is not None and isinstance(item, TextHolder):
        part = next((entry.text for entry in item.paragraphs if entry.id == build.part), "")
        if part.strip():
            return _shorten(part)
    return _shorten(item.name)


def _arrival(slide: Slide, build: Build, first: bool, lasts_ms: int) -> BuildWords:
    effect = effect_named(build.effect)
    what = _target_of(slide, build)
    rule = "" if first else {"together": "together", "follows": "follows"}.get(build.starts.__struct_config__.tag, "")  # type: ignore[arg-type]
    if effect.kind == "views":
        return BuildWords("views", "The view", f"flies to {what}", rule, lasts_ms)
    return BuildWords(effect.kind, what, VERBS[effect.kind], rule, lasts_ms)


def beat_lines(slide: Slide, schedule: SlideSchedule, start_ms: int) -> tuple[BeatLine, ...]:
    """A line for each beat of a slide that begins at `start_ms` on the show's clock."""
    notes = notes_by_beat(slide.notes, len(schedule.beats))
    builds = {build.id: build for build in slide.order}
    lines = []
    for number, beat in enumerate(schedule.beats):
        times = sorted((time for time in schedule.builds if time.beat == number), key=lambda time: time.offset_ms)
        arrivals = tuple(
            _arrival(slide, builds[time.build_id], at == 0, time.lasts_ms) for at, time in enumerate(times)
        )
        names = list(dict.fromkeys(arrival.what for arrival in arrivals))
        title = ", ".join(names[:2]) + (f" and {len(names) - 2} more" if len(names) > 2 else "")
        lines.append(
            BeatLine(
                title if number else "On arrival", arrivals, notes[number], start_ms + (beat.start_ms if number else 0)
            )
        )
    return tuple(lines)
