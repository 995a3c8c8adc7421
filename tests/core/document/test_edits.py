import msgspec
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import AdvanceAfter, Build, Follows, OnCue, ShowEnd, Slide, SlideEnd, SlideStart, Together
from ritornel.core.document import edits as e
from ritornel.core.document.changes import Change, apply_changes
from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.integrity import check_integrity
from ritornel.core.document.show import Show
from ritornel.core.errors import BadValue, RitornelError, UnknownName
from ritornel.core.schedule import compile_show
from tests.examples import example_a, shape, text, with_music


def rules(show: Show) -> list[str]:
    return [
        f"{b.id}:{b.starts.cue_id if isinstance(b.starts, OnCue) else type(b.starts).__name__.lower()}"
        for b in show.slides[1].order
    ]


class RunningOrderTest(SimpleTestCase):
    def moved(self, build_id: str, to: int, opens: bool = False) -> list[str]:
        return rules(e.apply_edit(example_a(), e.MoveBuild("two", build_id, to, opens)).show)

    def test_an_opener_that_moves_away_leaves_its_cue_to_the_next(self) -> None:
        self.assertEqual(self.moved("A", 2), ["B:first", "C:together", "A:together", "D:second"])

    def test_a_lone_opener_takes_its_cue_along(self) -> None:
        self.assertEqual(self.moved("D", 1), ["A:first", "D:second", "B:follows", "C:together"])

    def test_dropped_under_a_wait_an_entry_opens_the_beat_and_the_old_opener_joins(self) -> None:
        self.assertEqual(self.moved("C", 0, opens=True), ["C:first", "A:together", "B:follows", "D:second"])

    def test_removing_an_opener_hands_cue_and_hold_to_the_next_of_its_beat(self) -> None:
        self.assertEqual(
            rules(e.apply_edit(example_a(), e.RemoveBuild("two", "A")).show), ["B:first", "C:together", "D:second"]
        )

    def test_removing_a_whole_beat_takes_its_cue_with_it(self) -> None:
        self.assertEqual(
            rules(e.apply_edit(example_a(), e.RemoveObjects("two", ("d",))).show),
            ["A:first", "B:follows", "C:together"],
        )


class SlideEditTest(SimpleTestCase):
    def test_a_duplicate_has_ids_of_its_own_and_remembers_its_origin(self) -> None:
        after = e.apply_edit(example_a(), e.DuplicateSlides(("two",), "copy")).show
        check_integrity(after)
        self.assertEqual([slide.id for slide in after.slides], ["one", "two", "copy-s", "three"])
        copy = after.slides[2]
        self.assertEqual((copy.lineage, copy.objects[0].lineage), ("two", "a"))
        self.assertEqual(compile_show(after).slides[2].length_ms, 9200)

    def test_removing_the_first_slide_of_a_stretch_moves_the_music_and_tells(self) -> None:
        show = with_music(example_a(), start=SlideStart("two", 300), end=SlideEnd("three"))
        outcome = e.apply_edit(show, e.RemoveSlides(("two",)))
        self.assertEqual(outcome.show.music[0].start, SlideStart("three", 0))
        self.assertIn("now starts with slide “Three”", outcome.notices[0])
        restored, _ = apply_changes(outcome.show, outcome.inverse)
        self.assertEqual(restored, show)

    def test_removing_the_end_slide_ends_with_the_last_that_remains(self) -> None:
        show = with_music(example_a(), start=SlideStart("one"), end=SlideEnd("three"))
        self.assertEqual(e.apply_edit(show, e.RemoveSlides(("three", "two"))).show.music[0].end, SlideEnd("one"))

    def test_a_stretch_whose_slides_all_go_keeps_its_anchors(self) -> None:
        show = with_music(example_a(), start=SlideStart("two"), end=SlideEnd("two"))
        self.assertEqual(e.apply_edit(show, e.RemoveSlides(("two",))).show.music, show.music)

    def test_moving_a_slide_between_two_that_a_carry_joins_tells_what_it_carries_from_now(self) -> None:
        show = example_a()
        carried = e.apply_edit(show, e.ChangeSlides(("two",), {"transition": {"name": "carry", "lasts_ms": 500}})).show
        names = {slide.id: slide.name or slide.id for slide in show.slides}
        moved = e.apply_edit(carried, e.ReorderSlides(("three",), 1))
        self.assertEqual(
            moved.notices, (f"“{names['two']}” carried from “{names['one']}”; it now carries from “{names['three']}”.",)
        )
        first = e.apply_edit(carried, e.RemoveSlides(("one",)))
        self.assertIn(
            f"“{names['two']}” carried from “{names['one']}”; it now comes first, and carries nothing.", first.notices
        )
        self.assertEqual(e.apply_edit(carried, e.ReorderSlides(("three",), 0)).notices, ())

    def test_music_to_the_end_of_the_show_is_left_alone(self) -> None:
        show = with_music(example_a(), end=ShowEnd())
        self.assertEqual(e.apply_edit(show, e.RemoveSlides(("three",))).show.music, show.music)


class TextTest(SimpleTestCase):
    def setUp(self) -> None:
        slide = Slide(
            "s",
            objects=(text("t", "First", "Second", "Third"),),
            order=(
                Build(id="b1", object_id="t", effect="enters fade", starts=OnCue("c1"), part="t-1"),
                Build(id="b2", object_id="t", effect="enters fade", starts=OnCue("c2"), part="t-2"),
            ),
        )
        self.show = Show("x", "X", slides=(slide,))

    def change(self, words: str) -> e.EditOutcome:
        return e.apply_edit(self.show, e.ChangeText("s", "t", words, "new"))

    def test_builds_follow_their_paragraph_when_a_line_is_put_before_it(self) -> None:
        after = self.change("Zero\nFirst\nSecond\nThird").show.slides[0]
        self.assertEqual([p.id for p in after.objects[0].paragraphs], ["new-1", "t-1", "t-2", "t-3"])  # type: ignore[union-attr]
        self.assertEqual([b.part for b in after.order], ["t-1", "t-2"])

    def test_a_changed_line_keeps_its_build(self) -> None:
        after = self.change("First\nAnother second\nThird").show.slides[0]
        self.assertEqual([p.id for p in after.objects[0].paragraphs], ["t-1", "t-2", "t-3"])  # type: ignore[union-attr]

    def test_a_removed_line_takes_its_build_along_and_tells(self) -> None:
        outcome = self.change("First\nThird")
        self.assertEqual([b.part for b in outcome.show.slides[0].order], ["t-1"])
        self.assertIn("1 build of", outcome.notices[0])

    def test_too_much_text_is_refused_with_the_limit(self) -> None:
        with self.assertRaisesMessage(BadValue, "100,001 characters; a text holds up to 100,000"):
            self.change("x" * 100_001)


class RefusalTest(SimpleTestCase):
    def refused(self, edit: e.Edit, kind: type[RitornelError], words: str) -> None:
        show = example_a()
        before = to_json(show)
        with self.assertRaisesMessage(kind, words):
            e.apply_edit(show, edit)
        self.assertEqual(to_json(show), before)

    def test_a_build_of_an_object_that_is_gone(self) -> None:
        self.refused(
            e.AddBuild("one", Build(id="n", object_id="gone", effect="enters fade", starts=Follows())),
            UnknownName,
            "not on slide “One” any more",
        )

    def test_a_negative_time(self) -> None:
        self.refused(e.ChangeBuild("two", "A", {"after_ms": -1}), BadValue, ">= 0 at after_ms")

    def test_an_absurd_time(self) -> None:
        self.refused(e.ChangeSlides(("one",), {"advance": {"rule": "after", "after_ms": 10**12}}), BadValue, "86400000")

    def test_a_field_that_does_not_exist(self) -> None:
        self.refused(e.ChangeObjects("one", ("title",), {"colour_of_magic": 8}), BadValue, "colour_of_magic")
        self.refused(e.ChangeSlides(("one",), {"objects": []}), BadValue, "has no field “objects”")

    def test_an_id_that_changes(self) -> None:
        self.refused(e.ChangeObjects("one", ("title",), {"id": "other"}), BadValue, "keeps its id")

    def test_a_slide_that_is_gone(self) -> None:
        self.refused(e.RemoveSlides(("gone",)), UnknownName, "not in “Example A” any more")

    def test_two_objects_with_one_id(self) -> None:
        self.refused(e.AddObjects("one", (shape("title"),)), BadValue, "same id “title”")

    def test_a_picture_in_use_cannot_leave_the_shelf(self) -> None:
        with self.assertRaisesMessage(BadValue, "still used on the music"):
            e.apply_edit(with_music(example_a()), e.DropAssets(("waltz",)))

    def test_a_title_of_nothing(self) -> None:
        self.refused(e.ChangeShow({"title": " "}), BadValue, "needs a title")


IDS = st.sampled_from(["one", "two", "three"])
BUILDS = st.sampled_from(["t", "p", "A", "B", "C", "D", "L"])
TIMES = st.integers(0, 60_000)
EDITS: st.SearchStrategy[e.Edit] = st.one_of(
    st.builds(e.RemoveSlides, st.tuples(IDS)),
    st.builds(lambda i, to: e.ReorderSlides((i,), to), IDS, st.integers(-2, 5)),
    st.builds(
        lambda i, t, c: e.ChangeSlides((i,), {"advance": {"rule": "after", "after_ms": t, "cut_short": c}}),
        IDS,
        TIMES,
        st.booleans(),
    ),
    st.builds(lambda i, t: e.ChangeSlides((i,), {"transition": {"name": "dissolve", "lasts_ms": t}}), IDS, TIMES),
    st.builds(e.MoveBuild, IDS, BUILDS, st.integers(0, 5), st.booleans()),
    st.builds(e.RemoveBuild, IDS, BUILDS),
    st.builds(lambda i, b, t: e.ChangeBuild(i, b, {"after_ms": t, "lasts_ms": t // 2}), IDS, BUILDS, TIMES),
    st.builds(lambda i, o: e.RemoveObjects(i, (o,)), IDS, st.sampled_from(["title", "a", "b", "c", "d", "long"])),
    st.builds(lambda i, n: e.DuplicateSlides((i,), f"copy{n}"), IDS, st.integers(0, 10**6)),
    st.builds(lambda t: e.ChangeShow({"default_hold_ms": t}), TIMES),
)


class AnySequenceTest(SimpleTestCase):
    @settings(max_examples=150, deadline=None)
    @given(st.lists(EDITS, max_size=12))
    def test_order_and_spans_stay_whole_and_undo_restores_exactly(self, edits: list[e.Edit]) -> None:
        show = with_music(example_a(), start=SlideStart("two"), end=SlideEnd("three"))
        history: list[tuple[Show, tuple[Change, ...]]] = []
        for edit in edits:
            try:
                outcome = e.apply_edit(show, edit)
            except RitornelError:
                continue
            history.append((show, from_json(to_json(outcome.inverse), tuple[Change, ...], "x")))
            again, _ = apply_changes(show, from_json(to_json(outcome.changes), tuple[Change, ...], "x"))
            self.assertEqual(again, outcome.show)
            show = outcome.show
            check_integrity(show)
            for schedule in compile_show(show).slides:
                for beat, following in zip(schedule.beats, schedule.beats[1:], strict=False):
                    self.assertLessEqual(beat.start_ms, beat.end_ms)
                    self.assertLessEqual(beat.end_ms, following.start_ms)
                self.assertGreaterEqual(schedule.length_ms, 0)
            self.assertEqual(from_json(to_json(show), Show, "x"), show)
        for before, inverse in reversed(history):
            show, _ = apply_changes(show, inverse)
            self.assertEqual(show, before)

    def test_several_edits_are_undone_as_one(self) -> None:
        show = example_a()
        outcome = e.apply_edit(
            show,
            e.Several("Both", (e.RemoveBuild("two", "A"), e.ChangeBuild("two", "B", {"starts": {"rule": "together"}}))),
        )
        self.assertEqual(rules(outcome.show), ["B:together", "C:together", "D:second"])
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], show)

    def test_values_cannot_be_changed_in_place(self) -> None:
        with self.assertRaises(AttributeError):
            example_a().slides[0].name = "Other"  # type: ignore[misc]
        self.assertEqual(msgspec.structs.replace(example_a().slides[0], advance=AdvanceAfter(1)).id, "one")
        self.assertNotEqual(Together(), Follows())
