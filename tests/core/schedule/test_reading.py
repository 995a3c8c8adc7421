from django.test import SimpleTestCase

from ritornel.core.document import Slide, Transition
from ritornel.core.document.show import AdvanceAfter
from ritornel.core.schedule.reading import ReadingTime, reading_ms, reading_time
from ritornel.core.schedule.slide_schedule import compile_slide
from tests.examples import text


class ReadingTest(SimpleTestCase):
    def test_27_words_take_ten_and_a_half_seconds_and_none_take_none(self) -> None:
        self.assertEqual(reading_ms(Slide("s", objects=(text("t", " ".join(["word"] * 27)),))), 10_500)
        self.assertEqual(reading_ms(Slide("s", objects=(text("t", ""),))), 0)

    def test_it_is_read_from_when_it_is_there_and_the_exact_time_is_enough(self) -> None:
        def there(after_ms: int) -> ReadingTime:
            slide = Slide(
                "s",
                transition=Transition("dissolve", 500),
                objects=(text("t", "one two three"),),
                advance=AdvanceAfter(after_ms),
            )
            return reading_time(slide, compile_slide(slide, 2000, {}))

        self.assertEqual(there(3000), ReadingTime(2500, 2500, 3000))
        self.assertEqual([there(ms).is_short for ms in (2999, 3000, 3001)], [True, False, False])
