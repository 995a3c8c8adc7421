import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import Box, MusicSpan, Plain, Slide, Text
from ritornel.core.document import changes as c
from ritornel.core.document.decoding import from_builtins, from_json, replace_fields, to_builtins, to_json
from ritornel.core.document.integrity import check_integrity
from ritornel.core.document.objects import Object
from ritornel.core.document.show import Habits, NamedMark, Show
from ritornel.core.document.text import words_of
from ritornel.core.errors import BadValue, UnknownName
from tests.examples import example_a, shape, sound, text, with_music


class ChangesTest(SimpleTestCase):
    CHANGES = (
        c.PutSlide(Slide("two", "Other")),
        c.InsertSlide(1, Slide("new")),
        c.InsertSlide(99, Slide("new")),
        c.InsertSlide(-5, Slide("new")),
        c.RemoveSlide("one"),
        c.MoveSlide("three", 0),
        c.MoveSlide("one", 99),
        c.PutMusic((MusicSpan(id="n", asset_id="waltz"),)),
        c.PutMusic(()),
        c.InsertAsset(0, sound("other")),
        c.RemoveAsset("waltz"),
        c.PutSettings("T", 7, "loop", "on cue", holds_by_cue={"q": 3}),
        c.PutMarks((NamedMark("m", "Noon", "two", 500),)),
        c.PutHabits(Habits("enters fade", 300)),
    )

    def test_every_change_is_undone_exactly_by_its_inverse_also_through_json(self) -> None:
        show = with_music(example_a())
        for change in self.CHANGES:
            after, inverse = c.apply_change(show, change)
            with self.subTest(change):
                self.assertNotEqual(after, show)
                again = from_json(to_json(inverse), c.Change, "x")  # type: ignore[arg-type]
                self.assertEqual(c.apply_change(after, again)[0], show)

    def test_changes_of_what_is_gone_raise(self) -> None:
        for change in (c.PutSlide(Slide("gone")), c.RemoveSlide("gone"), c.MoveSlide("gone", 0), c.RemoveAsset("gone")):
            with self.assertRaises(UnknownName):
                c.apply_change(example_a(), change)


class DecodingTest(SimpleTestCase):
    def test_a_wrong_field_is_named_by_its_path(self) -> None:
        for value, path in (
            ({"id": "x", "title": ""}, "title"),
            ({"id": "a b", "title": "T"}, "id"),
            ({"id": "x", "title": "T", "frame": {"width_px": 3}}, "frame.width_px"),
            (
                {"id": "x", "title": "T", "slides": [{"id": "s", "background": {"kind": "plain", "colour": "red"}}]},
                "slides[0].background.colour",
            ),
        ):
            with self.assertRaises(BadValue) as caught:
                from_builtins(value, Show, "The show")
            self.assertEqual(caught.exception.field, path)
            self.assertTrue(str(caught.exception).startswith("The show: "))

    def test_unknown_fields_and_kinds_are_refused(self) -> None:
        with self.assertRaisesMessage(BadValue, "glow"):
            from_builtins({"id": "x", "title": "T", "glow": 1}, Show, "The show")
        with self.assertRaises(BadValue):
            from_builtins({"kind": "hologram", "id": "x"}, Object, "The object")

    def test_what_is_no_json_is_told(self) -> None:
        with self.assertRaisesMessage(BadValue, "The show: "):
            from_json(b"{", Show, "The show")

    def test_some_fields_are_replaced_and_the_whole_is_checked(self) -> None:
        item = replace_fields(
            shape("a"),
            {"box": {"x": 1, "y": 2, "width": 3, "height": 4}, "fill": {"kind": "plain", "colour": "#010203"}},
            Object,
            "It",
        )
        self.assertEqual((item.box, item.fill), (Box(1, 2, 3, 4), Plain("#010203")))
        with self.assertRaises(BadValue):
            replace_fields(shape("a"), {"opacity": 1.5}, Object, "It")

    def test_a_show_survives_builtins_and_json(self) -> None:
        show = with_music(example_a())
        self.assertEqual(from_builtins(to_builtins(show), Show, "x"), show)
        self.assertEqual(from_json(to_json(show), Show, "x"), show)
        once = to_json(from_json(to_json(show), Show, "x"))
        self.assertEqual(to_json(from_json(once, Show, "x")), once)


class IntegrityTest(SimpleTestCase):
    def test_ids_that_repeat_and_names_of_nothing_raise(self) -> None:
        replace = msgspec.structs.replace
        show = with_music(example_a())
        one, two, three = show.slides
        for broken, words in (
            (replace(show, slides=(one, one)), "Two slides"),
            (replace(show, assets=()), "not on the shelf"),
            (replace(show, slides=(replace(one, objects=(one.objects[0], one.objects[0])), two, three)), "Two objects"),
            (replace(show, slides=(replace(one, order=()), two, replace(two, id="copy"))), "Two cues"),
            (replace(show, slides=(replace(one, objects=one.objects[:1]), two)), "not on slide “One”"),
            (replace(show, music=(show.music[0], show.music[0])), "Two spans"),
        ):
            with self.assertRaises((BadValue, UnknownName)) as caught:
                check_integrity(broken)
            self.assertIn(words, str(caught.exception))

    def test_a_part_that_the_text_does_not_have_raises(self) -> None:
        from ritornel.core.document import Build, Follows

        slide = Slide(
            "s",
            objects=(text("t", "One"),),
            order=(Build(id="b", object_id="t", effect="enters fade", starts=Follows(), part="t-9"),),
        )
        with self.assertRaisesMessage(UnknownName, "a part that “T” does not have"):
            check_integrity(Show("x", "X", slides=(slide,)))

    def test_words_are_one_line_a_paragraph(self) -> None:
        item = text("t", "One", "", "Three")
        assert isinstance(item, Text)
        self.assertEqual(words_of(item), "One\n\nThree")
