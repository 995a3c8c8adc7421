"""Changes of two and three people to one show, brought together."""

import random
from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import Box, Build, Follows, OnCue, Paragraph, Show, Slide, TextRun
from ritornel.core.document import edits as e
from ritornel.core.document.changes import apply_changes, changes_between
from ritornel.core.document.integrity import check_integrity
from ritornel.core.document.merging import GONE, merge, value_at
from ritornel.core.document.rebasing import place_words, rebase_edit, revert_step, value_words
from ritornel.core.document.show import NamedMark
from ritornel.core.errors import RitornelError
from ritornel.demo.orlmere import orlmere
from tests.examples import text


def show_of() -> Show:
    wheel, pallets = text("wheel", "It runs"), text("pallets", "one", "two")
    order = (
        Build(id="b1", object_id="wheel", effect="enters fade", starts=Follows()),
        Build(id="b2", object_id="pallets", effect="enters fade", starts=OnCue("q")),
    )
    first = Slide("a", "Works", objects=(wheel, pallets), order=order)
    return Show("s", "S", slides=(first, Slide("b", "Bell"), Slide("c", "Dial")))


def change(object_id: str, **changes: Any) -> e.ChangeObjects:
    return e.ChangeObjects("a", (object_id,), changes)


class MergeTest(SimpleTestCase):
    def setUp(self) -> None:
        self.base = show_of()

    def after(self, *edits: Any) -> Show:
        show = self.base
        for edit in edits:
            show = e.apply_edit(show, edit).show
        return show

    def merged(self, theirs: Any, mine: Any) -> tuple[Show, list[tuple[str, ...]]]:
        found = merge(self.base, self.after(theirs), self.after(mine))
        check_integrity(found.show)
        return found.show, [met.path for met in found.collisions]

    def test_different_slides_objects_and_fields_of_one_object_meet_nothing(self) -> None:
        for theirs, mine in (
            (e.ChangeSlides(("b",), {"name": "The bell"}), e.ChangeSlides(("c",), {"name": "The dial"})),
            (change("wheel", size_px=40), change("pallets", size_px=50)),
            (change("wheel", size_px=40), change("wheel", align="right")),
            (e.ReorderSlides(("c",), 0), e.ChangeSlides(("c",), {"name": "The dial"})),
            (e.ChangeBuild("a", "b1", {"lasts_ms": 900}), e.ChangeBuild("a", "b2", {"lasts_ms": 800})),
            (e.ChangeShow({"title": "The clock"}), e.ChangeShow({"end": "loop"})),
            (e.RemoveObjects("a", ("wheel",)), change("pallets", size_px=50)),
        ):
            show, met = self.merged(theirs, mine)
            self.assertEqual(met, [], (theirs, mine))
            self.assertEqual(show, self.after(theirs, mine), "as if one had come after the other")

    def test_a_new_slide_beside_a_new_slide_both_stay_in_a_fixed_order(self) -> None:
        theirs, mine = e.AddSlide(1, Slide("t", "Theirs")), e.AddSlide(1, Slide("m", "Mine"))
        show, met = self.merged(theirs, mine)
        self.assertEqual(([slide.id for slide in show.slides], met), (["a", "t", "m", "b", "c"], []))

    def test_in_the_same_field_the_later_one_holds_and_both_values_are_told(self) -> None:
        found = merge(self.base, self.after(change("wheel", size_px=40)), self.after(change("wheel", size_px=50)))
        (met,) = found.collisions
        self.assertEqual(met.path, ("slides", "a", "objects", "wheel", "size_px"))
        self.assertEqual((met.base, met.theirs, met.mine), (32.0, 40, 50))
        self.assertEqual(value_at(found.show, met.path), 50)
        self.assertEqual(place_words(found.show, met.path), "the letter size of “Wheel”")
        self.assertEqual(value_words(met.theirs), "40")

    def test_a_place_is_one_thing_and_never_half_of_each(self) -> None:
        theirs = change("wheel", box={"x": 1, "y": 0, "width": 10, "height": 10})
        mine = change("wheel", box={"x": 0, "y": 2, "width": 20, "height": 10})
        show, met = self.merged(theirs, mine)
        self.assertEqual(show.slides[0].objects[0].box, Box(0, 2, 20, 10))
        self.assertEqual(len(met), 1)

    def test_different_paragraphs_of_one_text_merge_and_in_the_same_one_the_later_holds(self) -> None:
        def written(*lines: str) -> e.ChangeObjects:
            paragraphs = [{"id": f"pallets-{n}", "runs": [{"text": line}]} for n, line in enumerate(lines, 1)]
            return change("pallets", paragraphs=paragraphs)

        show, met = self.merged(written("ONE", "two"), written("one", "TWO"))
        self.assertEqual([line.text for line in show.slides[0].objects[1].paragraphs], ["ONE", "TWO"])  # type: ignore[union-attr]
        self.assertEqual(met, [])
        found = merge(self.base, self.after(written("eins", "two")), self.after(written("uno", "two")))
        (met_here,) = found.collisions
        self.assertEqual(value_words(met_here.theirs), "eins")

    def test_a_build_on_what_others_removed_is_told_and_brings_it_back_where_that_is_wanted(self) -> None:
        now = self.after(e.RemoveObjects("a", ("wheel",)))
        edit = e.ChangeBuild("a", "b1", {"lasts_ms": 900})
        found = rebase_edit(self.base, now, edit)
        self.assertEqual({path[-1] for path in found.removed}, {"b1", "wheel"})
        again = rebase_edit(self.base, now, edit, frozenset({"b1", "wheel"})).outcome.show
        check_integrity(again)
        self.assertEqual([item.id for item in again.slides[0].objects], ["wheel", "pallets"])
        self.assertEqual(again.slides[0].order[0].lasts_ms, 900)

    def test_what_is_removed_takes_along_what_others_built_on_it(self) -> None:
        theirs = e.AddBuild("a", Build(id="b3", object_id="wheel", effect="leaves fade", starts=Follows()))
        show, met = self.merged(theirs, e.RemoveObjects("a", ("wheel",)))
        self.assertEqual([build.id for build in show.slides[0].order], ["b2"])
        self.assertIn(("slides", "a", "objects", "wheel"), met)

    def test_a_mark_on_a_slide_that_was_removed_goes_with_it(self) -> None:
        show, met = self.merged(e.PutMark(NamedMark("m", "Here", "b")), e.RemoveSlides(("b",)))
        self.assertEqual((show.marks, met), ((), [("slides", "b")]))


class RevertTest(SimpleTestCase):
    def test_undo_leaves_what_others_did_since(self) -> None:
        before = show_of()
        after = e.apply_edit(before, change("wheel", size_px=40)).show
        now = e.apply_edit(after, change("wheel", align="right")).show
        found = revert_step(after, before, now, "Change Wheel")
        wheel = found.outcome.show.slides[0].objects[0]
        self.assertEqual((wheel.size_px, wheel.align, found.collisions), (32.0, "right", ()))  # type: ignore[union-attr]

    def test_what_others_changed_since_stays_and_is_told(self) -> None:
        before = show_of()
        after = e.apply_edit(before, change("wheel", size_px=40, align="centre")).show
        now = e.apply_edit(after, change("wheel", size_px=60)).show
        found = revert_step(after, before, now, "Change Wheel")
        wheel = found.outcome.show.slides[0].objects[0]
        self.assertEqual((wheel.size_px, wheel.align), (60, "left"))  # type: ignore[union-attr]
        self.assertEqual([met.path[-1] for met in found.collisions], ["size_px"])

    def test_an_object_that_others_built_on_stays_when_its_adding_is_undone(self) -> None:
        before = show_of()
        after = e.apply_edit(before, e.AddObjects("a", (text("pin", "Pin"),))).show
        now = e.apply_edit(
            after, e.AddBuild("a", Build(id="b9", object_id="pin", effect="enters fade", starts=Follows()))
        ).show
        found = revert_step(after, before, now, "Add Pin")
        self.assertEqual(found.outcome.changes, ())
        self.assertIn(("slides", "a", "objects", "pin"), [met.path for met in found.collisions])


class PutValuesTest(SimpleTestCase):
    def test_a_value_is_brought_back_by_its_place(self) -> None:
        show = show_of()
        path = ("slides", "a", "objects", "pallets", "paragraphs", "pallets-2", "runs")
        edit = e.PutValues((e.PlacedValue(path, [{"text": "TWO"}]), e.PlacedValue(("title",), "The clock")))
        after = e.apply_edit(show, edit).show
        line = after.slides[0].objects[1].paragraphs[1]  # type: ignore[union-attr]
        self.assertEqual((line, after.title), (Paragraph("pallets-2", (TextRun("TWO"),)), "The clock"))

    def test_what_is_gone_or_makes_no_sense_is_refused(self) -> None:
        show = show_of()
        for path, value in (
            (("slides", "a", "objects", "gone", "size_px"), 3),
            (("slides", "a", "objects", "wheel", "size_px"), "large"),
            (("slides", "a"), {}),
            (("id",), "x"),
        ):
            with self.assertRaises(RitornelError):
                e.apply_edit(show, e.PutValues((e.PlacedValue(path, value),)))


def _random_edit(show: Show, chance: random.Random, number: int) -> Any:
    """Any of the usual edits on what is there."""
    slide = chance.choice(show.slides)
    item = chance.choice(slide.objects) if slide.objects else None
    build = chance.choice(slide.order) if slide.order else None
    kinds: list[Any] = [
        e.ChangeSlides((slide.id,), {"name": f"Name {number}"}),
        e.ReorderSlides((slide.id,), chance.randrange(len(show.slides))),
        e.AddSlide(chance.randrange(len(show.slides) + 1), Slide(f"n{number}", "New")),
        e.AddObjects(slide.id, (text(f"o{number}", "Words"),)),
        e.ChangeShow({"title": f"Title {number}"}),
        e.PutMark(NamedMark(f"m{number}", "Mark", slide.id)),
    ]
    if len(show.slides) > 3:
        kinds.append(e.RemoveSlides((slide.id,)))
    if item is not None:
        box = {"x": number, "y": 0, "width": 10, "height": 10}
        kinds += [
            e.ChangeObjects(slide.id, (item.id,), {"box": box}),
            e.ChangeObjects(slide.id, (item.id,), {"opacity": chance.random()}),
            e.RemoveObjects(slide.id, (item.id,)),
            e.StackObjects(slide.id, (item.id,), chance.randrange(len(slide.objects))),
            e.AddBuild(slide.id, Build(id=f"b{number}", object_id=item.id, effect="enters fade", starts=Follows())),
        ]
    if build is not None:
        kinds += [
            e.ChangeBuild(slide.id, build.id, {"after_ms": number * 10}),
            e.RemoveBuild(slide.id, build.id),
            e.MoveBuild(slide.id, build.id, chance.randrange(len(slide.order))),
        ]
    return chance.choice(kinds)


class ThreePeopleTest(SimpleTestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.integers(0, 10**9))
    def test_in_any_interleaving_the_log_gives_the_show_and_no_edit_is_lost_unsaid(self, seed: int) -> None:
        chance = random.Random(seed)
        states = [orlmere()]
        log: list[tuple[Any, ...]] = []
        seen = [0, 0, 0]
        for number in range(14):
            who = chance.randrange(3)
            base, now = states[seen[who]], states[-1]
            try:
                edit = _random_edit(base, chance, number)
                e.apply_edit(base, edit)
            except RitornelError:
                continue
            try:
                found = rebase_edit(base, now, edit)
            except RitornelError:
                seen[who] = len(states) - 1
                continue
            if found.removed:
                seen[who] = len(states) - 1
                continue
            check_integrity(found.outcome.show)
            # An edit that was made without meeting anything is in it, just as its maker saw it.
            mine = e.apply_edit(base, edit).show
            for path in _written(base, mine):
                met = any(collision.path == path[: len(collision.path)] for collision in found.collisions)
                if not met and path[-1] != "#order":
                    self.assertEqual(value_at(found.outcome.show, path), value_at(mine, path), (edit, path))
            states.append(found.outcome.show)
            log.append(found.outcome.changes)
            if chance.random() < 0.6:
                seen[who] = len(states) - 1
        replayed = states[0]
        for changes in log:
            replayed, _ = apply_changes(replayed, changes)
        self.assertEqual(replayed, states[-1])

    @settings(max_examples=40, deadline=None)
    @given(st.integers(0, 10**9))
    def test_changes_between_two_states_make_one_of_the_other_and_back(self, seed: int) -> None:
        chance = random.Random(seed)
        before = after = orlmere()
        for number in range(6):
            try:
                after = e.apply_edit(after, _random_edit(after, chance, number)).show
            except RitornelError:
                continue
        made, inverse = apply_changes(before, changes_between(before, after))
        self.assertEqual(made, after)
        self.assertEqual(apply_changes(made, inverse)[0], before)


def _written(before: Show, after: Show) -> list[tuple[str, ...]]:
    """The places of slides, objects and builds that an edit changed by single fields."""
    found: list[tuple[str, ...]] = []
    old = {slide.id: slide for slide in before.slides}
    for slide in after.slides:
        was = old.get(slide.id)
        if was is None or was is slide:
            continue
        here = ("slides", slide.id)
        found += [(*here, name) for name in ("name", "notes") if getattr(was, name) != getattr(slide, name)]
        for kind in ("objects", "order"):
            things = {item.id: item for item in getattr(was, kind)}
            for item in getattr(slide, kind):
                if item.id in things and type(item) is type(things[item.id]):
                    found += [
                        (*here, kind, item.id, name)
                        for name in ("box", "opacity", "after_ms")
                        if getattr(item, name, GONE) != getattr(things[item.id], name, GONE)
                    ]
    if before.title != after.title:
        found.append(("title",))
    return found
