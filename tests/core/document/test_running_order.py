import unittest

from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document.edits import MoveBeat, PlaceBuild, apply_edit
from ritornel.core.document.running_order import clusters
from ritornel.core.document.show import Build, Follows, OnCue, Show, Together
from ritornel.core.errors import BadValue, UnknownName
from tests.examples import example_a

NAMES = {Together: "+", Follows: ">", OnCue: "|"}


def show_of(words: str) -> Show:
    """A show whose slide “two” has builds in this order: `>a +b |c` is a, b with it, and c on a cue."""
    order = []
    for word in words.split():
        starts = {"+": Together(), ">": Follows(), "|": OnCue(f"cue-{word[1]}")}[word[0]]
        order.append(
            Build(id=word[1], object_id=word[1], effect="enters fade", starts=starts, after_ms=0, lasts_ms=400)
        )
    show = example_a()
    slides = tuple(
        slide if slide.id != "two" else type(slide)("two", "Two", objects=slide.objects, order=tuple(order))
        for slide in show.slides
    )
    return type(show)("show", "Show", slides=slides, assets=show.assets)


def words_of(show: Show) -> str:
    """The same words, read from a show."""
    slide = show.slide("two")
    assert slide is not None
    return " ".join(NAMES[type(build.starts)] + build.id for build in slide.order)


class PlaceTest(unittest.TestCase):
    def placed(self, words: str, build_id: str, *where: object, **more: object) -> str:
        return words_of(apply_edit(show_of(words), PlaceBuild("two", build_id, *where, **more)).show)  # type: ignore[arg-type]

    def test_joining_a_cluster_starts_together(self) -> None:
        self.assertEqual(self.placed(">a +b |c", "c", "b", "after", True), ">a +b +c")
        self.assertEqual(self.placed(">a +b |c", "c", "b", "before", True), ">a +c +b")

    def test_the_first_of_a_cluster_has_its_rule(self) -> None:
        self.assertEqual(self.placed(">a |b +c |d", "d", "b", "before", True), ">a |d +b +c")
        self.assertEqual(self.placed(">a >b +c |d", "d", "b", "before", True), ">a >d +b +c")

    def test_leaving_a_brace_makes_a_cluster_of_its_own(self) -> None:
        self.assertEqual(self.placed(">a +b +c", "b", "c", "after", False), ">a +c >b")
        self.assertEqual(self.placed(">a +b +c", "b", "c", "before", False), ">b >a +c")
        self.assertEqual(self.placed(">a |b +c", "c", "b", "before", False), ">a |c >b")

    def test_what_led_a_cluster_leaves_it_whole(self) -> None:
        self.assertEqual(self.placed(">a |b +c |d", "b", "d", "after", True), ">a |c |d +b")
        self.assertEqual(self.placed(">a >b +c |d", "b", "d", "after", True), ">a >c |d +b")
        self.assertEqual(self.placed(">a |b >c |d", "b", "d", "after", True), ">a |c |d +b")

    def test_a_lone_opener_that_joins_another_beat_takes_its_cue_away(self) -> None:
        self.assertEqual(self.placed(">a |b |c", "b", "c", "after", True), ">a |c +b")

    def test_on_arrival_comes_before_all(self) -> None:
        self.assertEqual(self.placed(">a |b |c", "c", side="before"), ">c >a |b")
        self.assertEqual(self.placed("|a |b", "b", side="before"), ">b |a")

    def test_after_all_it_has_a_cue_of_its_own(self) -> None:
        self.assertEqual(self.placed(">a +b |c", "a", cue_id="new"), ">b |c |a")
        self.assertEqual(self.placed(">a |c", "c", cue_id="new"), ">a |c")

    def test_before_a_beat_it_has_a_cue_of_its_own_and_keeps_the_one_it_had_alone(self) -> None:
        self.assertEqual(self.placed(">a +b |c", "b", "c", "before", cue_id="new"), ">a |b |c")
        self.assertEqual(self.placed(">a |b +c |d", "d", "c", "before", cue_id="new"), ">a |d |b +c")
        self.assertEqual(self.placed(">a |b +c |d", "b", "d", "before", cue_id="new"), ">a |c |b |d")
        kept = apply_edit(show_of(">a |b |c"), PlaceBuild("two", "c", "b", "before", cue_id="new")).show.slide("two")
        assert kept is not None
        self.assertEqual(kept.order[1].starts, OnCue("cue-c"))
        with self.assertRaisesRegex(BadValue, "No cue comes before what is there on arrival"):
            self.placed(">a |b", "b", "a", "before", cue_id="new")

    def test_a_beat_moves_with_all_that_comes_in_it(self) -> None:
        def moved(words: str, cue: str, before: str | None) -> str:
            return words_of(apply_edit(show_of(words), MoveBeat("two", cue, before)).show)

        self.assertEqual(moved("|a +b |c >d", "cue-c", "cue-a"), "|c >d |a +b")
        self.assertEqual(moved(">a |b +c |d", "cue-b", None), ">a |d |b +c")
        self.assertEqual(moved(">a |b |c", "cue-b", "cue-b"), ">a |b |c")
        for cue, before in (("gone", None), ("cue-b", "gone")):
            with self.assertRaisesRegex(UnknownName, "The cue “gone” is not on this slide any more."):
                moved(">a |b", cue, before)

    def test_beside_itself_nothing_changes(self) -> None:
        self.assertEqual(self.placed(">a +b |c", "b", "b", "after", True), ">a +b |c")

    def test_what_is_not_there_is_told(self) -> None:
        with self.assertRaisesRegex(UnknownName, "The build “gone” is not on slide “Two” any more."):
            self.placed(">a |b", "a", "gone")
        with self.assertRaisesRegex(BadValue, "A build on a cue of its own needs that cue."):
            self.placed(">a |b", "a")

    @given(st.lists(st.sampled_from("+>|"), min_size=2, max_size=4), st.data())
    def test_wherever_one_goes_the_others_keep_their_order_and_the_cues_stay_whole(
        self, rules: list[str], data: st.DataObject
    ) -> None:
        words = " ".join(rule + name for rule, name in zip(rules, "abcd", strict=False))
        names = "abcd"[: len(rules)]
        moved, beside = data.draw(st.permutations(names))[:2]
        side, joins = data.draw(st.sampled_from(("before", "after"))), data.draw(st.booleans())
        show = apply_edit(show_of(words), PlaceBuild("two", moved, beside, side, joins)).show
        slide = show.slide("two")
        assert slide is not None
        ids = [build.id for build in slide.order]
        self.assertEqual([name for name in ids if name != moved], [name for name in names if name != moved])
        where = dict(zip(ids, clusters(slide.order), strict=True))
        self.assertEqual(where[moved][0], where[beside][0], "it is in the other's beat")
        self.assertEqual(where[moved] == where[beside], joins)
        cues = [build.starts.cue_id for build in slide.order if isinstance(build.starts, OnCue)]
        self.assertEqual(len(cues), len(set(cues)))
        before = show_of(words).slide("two")
        assert before is not None
        old = dict(zip(names, clusters(before.order), strict=True))
        for one in names:
            for other in names:
                if moved not in (one, other):
                    self.assertEqual(old[one] == old[other], where[one] == where[other], (one, other))
