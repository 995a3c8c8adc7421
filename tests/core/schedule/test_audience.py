"""What leaves the house: only what an audience's painter reads."""

import json
import re
from typing import Any

import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import AdvanceOnCue, Asset, Build, OnCue, Picture, Show, Slide, Text
from ritornel.core.document.objects import Caption, Clip, PlayClip, PlaySound
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.reduced_motion import calm_performance
from ritornel.demo.narrated import told
from ritornel.demo.orlmere import orlmere
from tests.examples import BOX, shape, text
from tests.kinds import every_effect, every_kind

PRIVATE = ("name", "notes", "opens_section", "author", "licence", "credit", "folder", "lineage")
"""Fields of a show that its maker writes for themself."""

NAMED_BY_US = ("transition", "theme")
"""What has a name of the program's own."""


def planted(value: Any) -> Any:
    """The show's builtins with words in every private field that must not be seen again."""
    if isinstance(value, list | tuple):
        return [planted(entry) for entry in value]
    if isinstance(value, dict):
        return {
            name: entry
            if name in NAMED_BY_US
            else f"SECRET {name}"
            if name in PRIVATE and isinstance(entry, str)
            else planted(entry)
            for name, entry in value.items()
        }
    return value


def names_of(value: Any, keyed: bool = False) -> set[str]:
    """The names of all fields at any depth; ids that things are keyed by are no names."""
    if isinstance(value, list):
        return {name for entry in value for name in names_of(entry)}
    if not isinstance(value, dict):
        return set()
    below = {found for name, entry in value.items() for found in names_of(entry, name in ("media", "clips", "presses"))}
    return below if keyed else below | set(value)


READ_BY_PAINTERS = """
advance after_ms angle_deg asset_id away_first baseline beat beat_words beats captions carries channel clip clips colour
content_ms count cue_id curve cut_short d dash do done_ms drawing drift_to duck_db ducking dx dy effects end end_ms
ends_with_beat entrances fade_in_ms fade_out_ms family fill first flip_x flip_y frame gain_db goes_on_ms ground height
height_px hinge hold_ms id in_ms index italic keys kind language last last_wait lasts_ms layers length_ms link loops
marks mask media motions music muted needs_height new new_ground new_objects object_id objects offset_ms old
old_objects old_on_top opacity out_ms part parts pass_ms passes period_ms pivot_x pivot_y poster_ms presses ramps
rate_pct reach_px repeats round rtl rule runs_on schedule second segments shadow sigma_px size_px slide_id slides soft
span_id spoken start_ms starts_ms stroke stroke_px text title transition_ms turn_deg view voice voices voices_live
wait weight width width_px x x1 x2 y y1 y2
"""
"""Every field of an audience's performance, at any depth."""


def public_show() -> Show:
    """A show with a slide for each way in which something may be meant for its maker alone."""
    film = Asset(
        "film",
        "holiday-2024-final.mp4",
        "ab" * 32,
        "video/mp4",
        size_bytes=9000,
        width_px=640,
        height_px=360,
        lasts_ms=9000,
    )
    bell = Asset("bell", "bell.ogg", "cd" * 32, "audio/ogg", size_bytes=100, lasts_ms=900)
    unused = Asset("unused", "secret-plan.png", "ef" * 32, "image/png", size_bytes=100, width_px=10, height_px=10)
    skipped = Asset("left-out", "left-out.png", "12" * 32, "image/png", size_bytes=100, width_px=10, height_px=10)
    captions = (
        Caption(0, 900, "SECRET before the in point"),
        Caption(2000, 3000, "Wind it"),
        Caption(8000, 9000, "SECRET after the out point"),
    )
    clip = Clip("c", "Clip", BOX, "film", in_ms=1000, out_ms=5000, rate_pct=150, captions=captions)
    objects = (clip, shape("p", press=PlayClip("c")), shape("s", press=PlaySound("bell")), text("t", "Wind it"))
    one = Slide(
        "one",
        "One",
        objects=objects,
        order=(Build(id="b", object_id="t", effect="enters fade", starts=OnCue("q"), after_ms=0, lasts_ms=300),),
        advance=AdvanceOnCue("out"),
        notes="Breathe",
    )
    two = Slide(
        "two",
        "Two",
        objects=(Picture("p", "P", BOX, "left-out"), text("u", "SECRET skipped")),
        skipped=True,
        notes="Not yet",
    )
    show = Show("public", "Public", slides=(one, two), assets=(film, bell, unused, skipped))
    return msgspec.convert(planted(msgspec.to_builtins(show)), Show)


class AudienceTest(SimpleTestCase):
    def shown(self, show: Show) -> list[dict[str, Any]]:
        staged = perform(show)
        media = {asset.id: f"/{asset.id}" for asset in show.assets} | {"film@150": "/film-150"}
        return [
            json.loads(msgspec.json.encode(audience_show(entry, media))) for entry in (staged, calm_performance(staged))
        ]

    def test_what_a_maker_writes_for_themself_stays_inside(self) -> None:
        for show in (public_show(), msgspec.convert(planted(msgspec.to_builtins(every_kind())), Show)):
            for given in self.shown(show):
                self.assertEqual(re.findall(r"SECRET[^\"]*", json.dumps(given)), [], show.id)

    def test_no_field_leaves_that_nobody_has_listed(self) -> None:
        """Painters' own types are handed on whole.

        Their fields are listed here, so that somebody looks at a new one before strangers do.
        """
        found = {
            name
            for show in (public_show(), every_kind(), every_effect(), orlmere(), told())
            for given in self.shown(show)
            for name in names_of(given)
        }
        self.assertEqual(sorted(found - set(READ_BY_PAINTERS.split())), [])

    def test_only_media_that_are_shown_or_heard_are_named(self) -> None:
        self.assertEqual(
            {key for given in self.shown(public_show()) for key in given["media"]}, {"film", "film@150", "bell"}
        )

    def test_captions_are_those_of_the_part_that_is_played(self) -> None:
        marks = [
            mark
            for item in self.shown(public_show())[0]["slides"][0]["drawing"]["objects"]
            for part in item["parts"]
            for mark in part["marks"]
        ]
        self.assertEqual([entry["text"] for mark in marks for entry in mark.get("captions", [])], ["Wind it"])

    def test_what_a_painter_needs_is_all_there(self) -> None:
        given = self.shown(public_show())[0]
        slide = given["slides"][0]
        self.assertEqual(len(given["slides"]), 1)
        self.assertEqual(slide["schedule"]["beats"][1]["wait"], {"cue_id": "q", "start_ms": 0, "hold_ms": 2000})
        self.assertEqual(slide["advance"], {"rule": "cue", "cue_id": "out"})
        self.assertEqual((slide["clips"]["c"]["out_ms"], slide["presses"]["p"]["do"]), (5000, "clip"))
        self.assertEqual(slide["beat_words"], ["", "Wind it"])

    def test_a_text_is_no_private_field(self) -> None:
        self.assertIsInstance(public_show().slides[0].objects[3], Text)
