from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.reference.snapping import nearest_ms

EVENTS = st.lists(st.integers(0, 10_000))


class SnappingTest(SimpleTestCase):
    def test_what_is_near_is_found_and_of_two_as_near_the_earlier(self) -> None:
        self.assertEqual(nearest_ms(1010, [900, 1000, 1100], 30), 1000)
        self.assertEqual(nearest_ms(1050, [1100, 1000], 50), 1000)
        self.assertIsNone(nearest_ms(1050, [1100, 1000], 49))

    @given(st.integers(0, 10_000), EVENTS, st.integers(0, 500))
    def test_nothing_nearer_is_passed_over(self, at: int, events: list[int], reach: int) -> None:
        found = nearest_ms(at, events, reach)
        ways = [abs(event - at) for event in events if abs(event - at) <= reach]
        self.assertEqual(None if found is None else abs(found - at), min(ways, default=None))
