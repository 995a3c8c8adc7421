"""The five acts of a first show are told by what the show is."""

import msgspec
from django.test import SimpleTestCase

from ritornel.core.document.first_acts import FIRST_ACTS, done_acts
from ritornel.core.document.integrity import check_integrity
from ritornel.core.document.show import Follows, MusicSpan, OnCue, Show
from ritornel.demo.orlmere import orlmere
from ritornel.starters.first_show import first_show


class FirstActsTest(SimpleTestCase):
    def with_builds(self, *starts: object) -> Show:
        show, _ = first_show("first")
        known = orlmere().slides[0].order[0]
        order = tuple(
            msgspec.structs.replace(known, id=f"b{number}", object_id="wheel-wheel", starts=start)
            for number, start in enumerate(starts)
        )
        wheel = msgspec.structs.replace(show.slides[1], order=order)
        return msgspec.structs.replace(show, slides=(show.slides[0], wheel, show.slides[2]))

    def test_it_begins_whole_and_with_nothing_done(self) -> None:
        show, data = first_show("first")
        check_integrity(show)
        self.assertEqual([asset.sha256 for asset in show.assets], list(data))
        self.assertEqual(done_acts(show, released=False), ())

    def test_each_act_is_seen_when_the_show_has_it_and_not_before(self) -> None:
        self.assertEqual(done_acts(self.with_builds(OnCue("q")), False), ("build",))
        self.assertEqual(done_acts(self.with_builds(OnCue("q"), Follows()), False), ("build",))
        self.assertEqual(done_acts(self.with_builds(OnCue("q"), OnCue("r")), False), ("build", "wait"))
        waits = self.with_builds(OnCue("q", 3000), OnCue("r"))
        self.assertEqual(done_acts(waits, False), ("build", "wait", "hold"))
        music = msgspec.structs.replace(waits, music=(MusicSpan(id="m", asset_id="waltz", start="town"),))
        self.assertEqual(done_acts(music, False), ("build", "wait", "hold", "music"))
        self.assertEqual(done_acts(music, True), tuple(act.name for act in FIRST_ACTS))

    def test_a_hold_of_0_was_pulled_too(self) -> None:
        self.assertIn("hold", done_acts(self.with_builds(OnCue("q", 0)), False))
