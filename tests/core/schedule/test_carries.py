"""What takes part in a carry, and how what does and what does not comes and goes."""

import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import AdvanceAfter, Asset, Box, Build, Follows, OnCue, Shape, Show, Slide, Transition
from ritornel.core.document.objects import Picture, Plain, Wings
from ritornel.core.document.show import Link
from ritornel.core.schedule.carries import OUT_BY, Ended, find_pairs
from ritornel.core.schedule.performance import frame_state_at, perform
from tests.core.motion.test_carry import star
from tests.examples import text

CARRY = Transition("carry", 1000, "even")


def show_of(first: Slide, second: Slide) -> Show:
    return Show("s", "S", slides=(first, second))


def ends(show: Show) -> tuple[Ended, Ended]:
    one, two = (Ended(s.slide, s.drawing, s.schedule, s.tracks) for s in perform(show).slides)
    return one, two


class CarriedTest(SimpleTestCase):
    def test_what_enters_by_itself_takes_no_part_and_is_told(self) -> None:
        first = Slide("one", objects=(star("a"),), advance=AdvanceAfter(2000))
        second = Slide(
            "two",
            objects=(star("x", 400, lineage="a"),),
            transition=CARRY,
            order=(Build(id="b", object_id="x", effect="enters fade", starts=Follows()),),
        )
        pairs, refusals = find_pairs(*ends(show_of(first, second)))
        self.assertEqual((pairs, [(r.before, r.after) for r in refusals]), ((), [("a", "x")]))
        self.assertIn("X enters by a build of its own", refusals[0].why)

    def test_a_link_by_hand_that_is_refused_is_told_also_where_each_found_another(self) -> None:
        first = Slide("one", objects=(star("a"), star("b", 300)), advance=AdvanceAfter(2000))
        objects = (star("x", 400), star("y", 500, lineage="a"))
        order = (Build(id="e", object_id="x", effect="enters fade", starts=Follows()),)
        second = Slide("two", objects=objects, transition=CARRY, order=order, links=(Link("a", "x"),))
        pairs, refusals = find_pairs(*ends(show_of(first, second)))
        self.assertEqual([(pair.before, pair.after) for pair in pairs], [("a", "y")])
        self.assertIn(("a", "x"), [(refusal.before, refusal.after) for refusal in refusals])

    def test_of_two_of_which_one_has_found_another_nothing_is_told(self) -> None:
        # X comes of A, but enters by itself; Y looks like A: A goes to Y, and nobody misses X.
        first = Slide("one", objects=(star("a"),), advance=AdvanceAfter(2000))
        order = (Build(id="e", object_id="x", effect="enters fade", starts=Follows()),)
        second = Slide("two", objects=(star("x", 400, lineage="a"), star("y", 500)), transition=CARRY, order=order)
        pairs, refusals = find_pairs(*ends(show_of(first, second)))
        self.assertEqual([(pair.before, pair.after) for pair in pairs], [("a", "y")])
        self.assertEqual(refusals, ())

    def test_a_picture_and_a_form_that_are_linked_by_hand_dissolve_into_each_other(self) -> None:
        shown = Asset("noon", "Noon", "ab" * 32, "image/png", size_bytes=10, width_px=400, height_px=300)
        picture = Picture("p", "Noon", Box(0, 0, 400, 300), "noon")
        for before, after in ((star("a"), picture), (picture, star("a"))):
            first = Slide("one", objects=(before,), advance=AdvanceAfter(2000))
            second = Slide("two", objects=(after,), transition=CARRY, links=(Link(before.id, after.id),))
            show = msgspec.structs.replace(show_of(first, second), assets=(shown,))
            pairs, _ = find_pairs(*ends(show))
            self.assertEqual([(pair.before, pair.after) for pair in pairs], [(before.id, after.id)])
            halfway = frame_state_at(perform(show), 2500)
            self.assertEqual([len(layer.objects) for layer in halfway.layers], [1, 1])

    def test_what_is_accented_before_it_enters_is_there_from_the_start_and_is_paired(self) -> None:
        first = Slide("one", objects=(star("a"),), advance=AdvanceAfter(2000))
        order = (
            Build(id="p", object_id="x", effect="accents pulse", starts=Follows()),
            Build(id="e", object_id="x", effect="enters fade", starts=Follows()),
        )
        second = Slide("two", objects=(star("x", 400, lineage="a"),), transition=CARRY, order=order)
        pairs, _ = find_pairs(*ends(show_of(first, second)))
        self.assertEqual([(pair.before, pair.after) for pair in pairs], [("a", "x")])

    def test_what_is_away_when_the_slide_before_ends_takes_no_part(self) -> None:
        first = Slide(
            "one",
            objects=(star("a"),),
            order=(Build(id="b", object_id="a", effect="leaves fade", starts=Follows()),),
            advance=AdvanceAfter(2000),
        )
        second = Slide("two", objects=(star("x", 400, lineage="a"),), transition=CARRY)
        pairs, refusals = find_pairs(*ends(show_of(first, second)))
        self.assertEqual(pairs, ())
        self.assertIn("is away when the slide before ends", refusals[0].why)

    def test_a_text_enters_only_if_all_its_parts_do(self) -> None:
        one = Slide("one", objects=(text("t", "First", "Second"),), advance=AdvanceAfter(2000))
        order = (Build(id="b", object_id="u", effect="enters fade", starts=OnCue("q"), part="u-2"),)
        two = Slide("two", objects=(text("u", "First", "Second"),), transition=CARRY, order=order)
        pairs, _ = find_pairs(*ends(show_of(one, two)))
        self.assertEqual([(p.before, p.after) for p in pairs], [("t", "u")])

    def test_the_ground_dissolves_when_what_goes_is_gone_and_the_same_ground_stays(self) -> None:
        plain = (Plain("#101a1f"), Plain("#ffffff"))
        for second, keys in (
            (plain[0], ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0))),
            (plain[1], ((0.0, 0.0), (OUT_BY, 0.0), (1.0, 1.0))),
        ):
            one = Slide("one", objects=(star("a"),), background=plain[0], advance=AdvanceAfter(2000))
            two = Slide("two", objects=(star("a"),), background=second, transition=CARRY)
            self.assertEqual(perform(show_of(one, two)).slides[1].tracks.layers.new_ground, keys)

    def test_a_line_without_height_keeps_its_size(self) -> None:
        one, two = (Shape("a", "A", Box(x, 100, 200, 0), "line") for x in (0, 400))
        show = perform(
            show_of(
                Slide("one", objects=(one,), advance=AdvanceAfter(2000)), Slide("two", objects=(two,), transition=CARRY)
            )
        )
        start = show.schedule.starts_ms[1]
        new = dict(frame_state_at(show, start).layers[1].objects)["a", None]
        self.assertEqual((new.x, new.scale, new.wide), (-400, 1, 1))

    def test_a_pair_moves_from_the_old_place_size_and_turn_to_the_new(self) -> None:
        first = Slide("one", objects=(star("a", 0, 0),), advance=AdvanceAfter(2000))
        goal = Shape("x", "X", Box(400, 200, 200, 200, 350), "star", lineage="a")
        show = perform(show_of(first, Slide("two", objects=(goal,), transition=CARRY)))
        start = show.schedule.starts_ms[1]
        for share, expected in ((0.0, (-450.0, -250.0, 0.5, 10.0)), (0.5, (-225.0, -125.0, 0.75, 5.0))):
            new = dict(frame_state_at(show, start + share * 1000).layers[1].objects)["x", None]
            self.assertEqual(tuple(round(v, 6) for v in (new.x, new.y, new.scale, new.turn)), expected)
        old = dict(frame_state_at(show, start + 10).layers[0].objects)["a", None]
        self.assertEqual(old.opacity, 0)

    def test_a_carry_begins_where_a_travel_has_ended(self) -> None:
        travel = Build(
            id="b",
            object_id="a",
            effect="travels along",
            starts=Follows(),
            after_ms=0,
            lasts_ms=500,
            settings={"path": "M 0 0 L 300 0"},
        )
        first = Slide("one", objects=(star("a", 0, 0),), order=(travel,), advance=AdvanceAfter(2000))
        show = perform(show_of(first, Slide("two", objects=(star("x", 0, 0, lineage="a"),), transition=CARRY)))
        new = dict(frame_state_at(show, show.schedule.starts_ms[1]).layers[1].objects)["x", None]
        self.assertEqual(new.x, 300)

    def test_the_unpaired_go_in_the_first_and_come_in_the_last_forty_percent_or_from_their_wings(self) -> None:
        first = Slide("one", objects=(star("gone"),), advance=AdvanceAfter(2000))
        ring = Shape("ring", "Ring", Box(0, 0, 50, 50), "ring")
        winged = Shape("arch", "Arch", Box(0, 0, 50, 50), "arch", wings=Wings(-500, 0, 1, 1))
        show = perform(show_of(first, Slide("two", objects=(ring, winged), transition=CARRY)))
        start = show.schedule.starts_ms[1]
        self.assertEqual(
            [
                dict(frame_state_at(show, start + ms).layers[0].objects)["gone", None].opacity
                for ms in (0, 200, 400, 900)
            ],
            [1, 0.5, 0, 0],
        )
        self.assertEqual(
            [
                round(dict(frame_state_at(show, start + ms).layers[1].objects)["ring", None].opacity, 6)
                for ms in (0, 600, 800)
            ],
            [0, 0, 0.5],
        )
        arch = dict(frame_state_at(show, start + 500).layers[1].objects)["arch", None]
        self.assertEqual((arch.x, arch.opacity), (-250, 1))
