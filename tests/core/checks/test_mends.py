"""Whatever a fix fixes stays fixed, and it brings no other finding on the same object."""

import random
from typing import Any

import msgspec
from django.test import SimpleTestCase

from ritornel.core.checks import Finding, find_problems
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.objects import Box, GoToSlide, Object, OpenAddress, Text
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceOnCue,
    MusicSpan,
    OnCue,
    Show,
    Slide,
    SlideEnd,
    SlideStart,
    Transition,
)
from ritornel.demo.narrated import told
from ritornel.demo.orlmere import orlmere
from ritornel.demo.pendulum import pendulum
from ritornel.starters import STARTERS, starter_show
from tests.kinds import every_kind

SHOWS = (
    orlmere,
    pendulum,
    told,
    every_kind,
    *((lambda name=name: starter_show(name, "starter", "Starter")[0]) for name in STARTERS),
)
ROUNDS = 36


def upset_object(item: Object, slides: list[str], chance: random.Random) -> Object:
    """The object with something about it that an audience might stumble over, or as it was."""
    far = Box(chance.choice((-4000, 4000)), item.box.y, item.box.width, item.box.height)
    changes: list[dict[str, Any]] = [
        {"opacity": chance.choice((0.0, 0.01, 0.5))},
        {"box": far},
        {"opacity": 0.0, "box": far},
        {"press": GoToSlide(chance.choice(slides))},
        {"press": OpenAddress("https://localhost/x")},
        {"alternative": ""} if hasattr(item, "alternative") else {},
        {"size_px": chance.choice((4, 9, 17.9))} if isinstance(item, Text) else {},
        {},
        {},
    ]
    return msgspec.structs.replace(item, **chance.choice(changes))


def upset_slide(slide: Slide, slides: list[str], chance: random.Random) -> Slide:
    objects = tuple(upset_object(item, slides, chance) if chance.random() < 0.4 else item for item in slide.objects)
    order = tuple(
        msgspec.structs.replace(build, starts=msgspec.structs.replace(build.starts, hold_ms=None))
        if isinstance(build.starts, OnCue)
        else build
        for build in slide.order
    )
    ways = (AdvanceAfter(chance.randrange(9000)), AdvanceAfter(400, True), AdvanceOnCue(f"leaves-{slide.id}"))
    kept = slide.advance
    leaving = chance.choice((*ways, kept, kept))
    transition = chance.choice((Transition("push", 700), slide.transition, slide.transition))
    return msgspec.structs.replace(
        slide, objects=objects, order=order, advance=leaving, transition=transition, skipped=chance.random() < 0.15
    )


def upset_show(show: Show, chance: random.Random) -> Show:
    slides = [slide.id for slide in show.slides]
    sounds = [asset for asset in show.assets if asset.lasts_ms and not asset.width_px]
    start, end = SlideStart(chance.choice(slides), chance.choice((0, 500_000))), SlideEnd(chance.choice(slides))
    music = (MusicSpan(id="upset", asset_id=sounds[0].id, start=start, end=end),) if sounds else ()
    return msgspec.structs.replace(
        show,
        slides=tuple(upset_slide(slide, slides, chance) for slide in show.slides),
        music=chance.choice((show.music, music)),
        runs=chance.choice(("self-running", "on cue")),
    )


def about_object(finding: Finding) -> str:
    """The slide and object that a finding is about: "esc-s:esc-t"; empty where it is about no object."""
    _, _, place = finding.id.partition(":")
    return place if ":" in place else ""


class FixesTest(SimpleTestCase):
    def test_every_fix_of_random_shows_ends_its_finding_and_begins_none_on_the_same_object(self) -> None:
        tried: set[str] = set()
        for number in range(ROUNDS):
            chance = random.Random(number)
            show = upset_show(SHOWS[number % len(SHOWS)](), chance)
            found = find_problems(show)
            before = {finding.id for finding in found}
            mendable = [finding for finding in found if finding.fix]
            for finding in chance.sample(mendable, min(len(mendable), 4)):
                assert finding.fix
                tried.add(finding.check)
                after = find_problems(apply_edit(show, finding.fix.edit).show)
                with self.subTest(number, finding=finding.id, fix=finding.fix.words):
                    self.assertNotIn(finding.id, {entry.id for entry in after})
                    place = about_object(finding)
                    self.assertEqual(
                        {entry.id for entry in after if place and about_object(entry) == place} - before, set()
                    )
        self.assertGreaterEqual(len(tried), 10, tried)

    def test_one_object_is_never_told_to_be_fixed_in_two_ways_that_contradict(self) -> None:
        for number in range(ROUNDS):
            show = upset_show(SHOWS[number % len(SHOWS)](), random.Random(1000 + number))
            checks: dict[str, set[str]] = {}
            for finding in find_problems(show):
                checks.setdefault(about_object(finding), set()).add(finding.check)
            for place, names in checks.items():
                self.assertFalse(place and {"unseen", "invisible"} <= names, place)
