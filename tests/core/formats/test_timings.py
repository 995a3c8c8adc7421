from django.test import SimpleTestCase

from ritornel.core.document.edits import apply_edit
from ritornel.core.document.objects import Caption
from ritornel.core.errors import BadMedia
from ritornel.core.formats.timings import read_timings, timing_lines, write_timings
from ritornel.core.formats.webvtt import read_captions, write_srt
from ritornel.core.schedule.show_schedule import compile_show
from tests.examples import example_a


class TimingsTest(SimpleTestCase):
    def setUp(self) -> None:
        self.show = example_a()
        self.table = write_timings(timing_lines(self.show, compile_show(self.show)))

    def read(self, text: str, encoding: str = "utf-8"):  # type: ignore[no-untyped-def]
        return read_timings(self.show, text.encode(encoding), "times.csv")

    def test_the_worked_example_as_a_table(self) -> None:
        lines = [line.split(",") for line in self.table.splitlines()]
        self.assertEqual(lines[0], ["slide", "name", "wait", "starts_s", "length_s", "hold_s"])
        self.assertEqual(
            [(line[0], line[2], line[3], line[4], line[5]) for line in lines[1:]],
            [
                ("1", "", "0.000", "5.000", ""),
                ("2", "", "5.000", "9.200", ""),
                ("2", "1", "5.500", "", "2.000"),
                ("2", "2", "8.500", "", "3.500"),
                ("2", "leaves", "12.200", "", "2.000"),
                ("3", "", "14.200", "18.200", ""),
            ],
        )

    def test_a_table_that_was_written_is_read_back_and_changes_no_time(self) -> None:
        edit, told = self.read(self.table)
        self.assertEqual(told, ())
        self.assertEqual(compile_show(apply_edit(self.show, edit).show).starts_ms, compile_show(self.show).starts_ms)

    def test_semicolons_decimal_commas_and_byte_order_marks(self) -> None:
        edit, _ = self.read(
            "slide;name;wait;starts_s;length_s;hold_s\n1;;;;7,5;\n2;;2;;;1,25\n2;;leaves;;;0", "utf-8-sig"
        )
        after = compile_show(apply_edit(self.show, edit).show)
        self.assertEqual(
            (after.slides[0].length_ms, [beat.wait and beat.wait.hold_ms for beat in after.slides[1].beats]),
            (7500, [None, 2000, 1250]),
        )

    def test_slides_are_found_by_name_where_they_were_moved_and_what_does_not_fit_is_listed(self) -> None:
        name = self.show.slides[0].name
        edit, told = self.read(f"slide,name,wait,length_s,hold_s\n2,{name},,6,\n9,,,4,\n1,,3,,4\n1,,leaves,,4\n")
        self.assertEqual(compile_show(apply_edit(self.show, edit).show).slides[0].length_ms, 6000)
        self.assertEqual(len(told), 3)
        self.assertIn("Line 3: there is no slide 9.", told)

    def test_what_cannot_be_read_is_told_with_its_line(self) -> None:
        for text, words in (
            ("a,b\n1,2\n", "is no table of timings"),
            ("slide,length_s\nfirst,2\n", "line 2: “first” is no number of a slide"),
            ("slide,length_s\n1,2\n1,-4\n", "line 3: “-4” in the column length_s is no time in seconds"),
            ("slide,length_s\n1,999999\n", "no time in seconds"),
        ):
            with self.assertRaisesMessage(BadMedia, words):
                self.read(text)


class SrtTest(SimpleTestCase):
    def test_captions_written_as_srt_are_read_again(self) -> None:
        captions = (Caption(0, 1500, "Tick"), Caption(3_661_001, 3_662_000, "tock\nand again"))
        self.assertIn("2\n01:01:01,001 --> 01:01:02,000\ntock\nand again", write_srt(captions))
        self.assertEqual(read_captions(write_srt(captions).encode(), "x.srt")[0], captions)
