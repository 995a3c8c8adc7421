"""Which objects a carry pairs, and that it is the best way of pairing them."""

import itertools

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import Box, Picture, Shape
from ritornel.core.document.show import Link
from ritornel.core.motion.carry import CarryCandidate, pairs_of


def star(name: str, x: float = 0, y: float = 0, **more: object) -> Shape:
    return Shape(name, name.title(), Box(x, y, 100, 100), "star", **more)  # type: ignore[arg-type]


def standing(*items: Shape | Picture) -> list[CarryCandidate]:
    return [CarryCandidate(item, rank, item.box.x + 50, item.box.y + 50) for rank, item in enumerate(items)]


class PairsTest(SimpleTestCase):
    def test_lineage_comes_before_picture_and_words(self) -> None:
        old = standing(star("a", 0), star("b", 500))
        new = standing(star("x", 10, lineage="b"), star("y", 490))
        self.assertEqual(
            [(p.before, p.after, p.why) for p in pairs_of(old, new)], [("b", "x", "lineage"), ("a", "y", "words")]
        )

    def test_the_same_picture_is_the_same_thing(self) -> None:
        old, new = (
            standing(Picture("p", "P", Box(0, 0, 9, 9), "dial")),
            standing(Picture("q", "Q", Box(500, 0, 9, 9), "dial")),
        )
        self.assertEqual([(p.before, p.after, p.why) for p in pairs_of(old, new)], [("p", "q", "picture")])

    def test_links_by_hand_come_first_and_an_unlink_forbids_that_pair_only(self) -> None:
        old, new = standing(star("a", 0), star("b", 500)), standing(star("x", 0), star("y", 500))
        self.assertEqual(
            [(p.before, p.after) for p in pairs_of(old, new, links=[Link("a", "y")])], [("b", "x"), ("a", "y")]
        )
        self.assertEqual(
            {(p.before, p.after) for p in pairs_of(old, new, unlinks=[Link("a", "x")])}, {("b", "x"), ("a", "y")}
        )
        self.assertEqual(pairs_of(standing(star("a")), standing(star("x")), unlinks=[Link("a", "x")]), ())

    def test_slides_that_share_nothing_pair_nothing(self) -> None:
        self.assertEqual(pairs_of(standing(star("a")), standing(Shape("r", "R", Box(0, 0, 100, 100), "ring"))), ())

    @settings(max_examples=60, deadline=None)
    @given(
        st.lists(st.tuples(st.integers(0, 900), st.integers(0, 600)), max_size=6),
        st.lists(st.tuples(st.integers(0, 900), st.integers(0, 600)), max_size=6),
    )
    def test_the_pairing_is_the_best_of_all_there_are(
        self, left: list[tuple[int, int]], right: list[tuple[int, int]]
    ) -> None:
        old = standing(*(star(f"a{n}", *place) for n, place in enumerate(left)))
        new = standing(*(star(f"b{n}", *place) for n, place in enumerate(right)))
        by_id = {s.item.id: s for s in (*old, *new)}
        pairs = pairs_of(old, new)

        def cost(chosen: list[tuple[CarryCandidate, CarryCandidate]]) -> float:
            return sum((a.x - b.x) ** 2 + (a.y - b.y) ** 2 for a, b in chosen)

        few, many = sorted((old, new), key=len)
        best = min(
            (cost(list(zip(few, order, strict=True))) for order in itertools.permutations(many, len(few))), default=0.0
        )
        self.assertEqual(len(pairs), len(few))
        self.assertAlmostEqual(cost([(by_id[p.before], by_id[p.after]) for p in pairs]), best, places=3)
