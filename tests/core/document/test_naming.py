import unittest

from ritornel.core.document.edits import (
    AddObjects,
    AddSlide,
    ChangeObjects,
    ChangeText,
    ReplaceAsset,
    Several,
    apply_edit,
)
from ritornel.core.document.objects import Box, Object, Paragraph, Picture, Shape, Text, TextRun
from ritornel.core.document.show import Asset, Show, Slide

BOX = Box(0, 0, 100, 50)
NOON = Asset("noon", "tower-noon", "ab" * 32, "image/jpeg", size_bytes=9, width_px=100, height_px=100)
NIGHT = Asset("night", "tower-night", "cd" * 32, "image/jpeg", size_bytes=9, width_px=100, height_px=100)


def text(object_id: str, words: str = "", name: str = "Text", place: str = "") -> Text:
    return Text(object_id, name, BOX, paragraphs=(Paragraph(f"{object_id}-1", (TextRun(words),)),), place=place)


def show_with(*objects: Object, name: str = "") -> Show:
    return Show("show", "Show", slides=(Slide("s", name, objects=tuple(objects)),), assets=(NOON, NIGHT))


class NamingTest(unittest.TestCase):
    def edited(self, show: Show, edit: object) -> Show:
        outcome = apply_edit(show, edit)  # type: ignore[arg-type]
        self.assertEqual(self.undone(outcome), show, "undo takes the names back too")
        return outcome.show

    def undone(self, outcome: object) -> Show:
        from ritornel.core.document.changes import apply_changes

        return apply_changes(outcome.show, outcome.inverse)[0]  # type: ignore[attr-defined]

    def names(self, show: Show) -> list[str]:
        return [item.name for item in show.slides[0].objects]

    def test_a_text_is_called_by_its_first_words(self) -> None:
        show = self.edited(show_with(), AddObjects("s", (text("a"),)))
        self.assertEqual(self.names(show), ["Text"])
        show = self.edited(show, ChangeText("s", "a", "The wheel\nwants to run", "x"))
        self.assertEqual(self.names(show), ["The wheel wants to run"])
        show = self.edited(show, ChangeText("s", "a", "The pallets hold it", "y"))
        self.assertEqual(self.names(show), ["The pallets hold it"])

    def test_what_was_named_by_hand_keeps_its_name(self) -> None:
        show = self.edited(show_with(text("a", "The wheel", "The wheel")), ChangeObjects("s", ("a",), {"name": "Says"}))
        show = self.edited(show, ChangeText("s", "a", "The pallets", "x"))
        self.assertEqual(self.names(show), ["Says"])

    def test_a_text_without_words_keeps_its_name_until_there_are_others(self) -> None:
        show = self.edited(show_with(text("a", "The wheel", "The wheel")), ChangeText("s", "a", "", "x"))
        self.assertEqual(self.names(show), ["The wheel"])

    def test_two_of_one_name_are_told_apart_by_a_number(self) -> None:
        shapes = (Shape("a", "Ellipse", BOX, "ellipse"), Shape("b", "Ellipse", BOX, "ellipse"))
        self.assertEqual(self.names(self.edited(show_with(), AddObjects("s", shapes))), ["Ellipse", "Ellipse 2"])
        show = self.edited(show_with(text("a", "Tick", "Tick")), AddObjects("s", (text("b", "Tick", "Tick"),)))
        self.assertEqual(self.names(show), ["Tick", "Tick 2"])

    def test_a_picture_is_called_by_its_file_and_by_the_new_one_when_it_is_replaced(self) -> None:
        show = show_with(Picture("p", "tower-noon", BOX, "noon"))
        show = self.edited(show, ChangeObjects("s", ("p",), {"asset_id": "night"}))
        self.assertEqual(self.names(show), ["tower-night"])
        named = show_with(Picture("p", "Our tower", BOX, "noon"))
        self.assertEqual(self.names(self.edited(named, ReplaceAsset("noon", "night"))), ["Our tower"])

    def test_a_slide_is_called_by_its_heading_until_it_is_named(self) -> None:
        show = show_with(name="Text and picture")
        show = self.edited(show, AddObjects("s", (text("h", "", "Heading", "heading"),)))
        for words in ("The escapement", "The pallets"):
            show = self.edited(show, ChangeText("s", "h", words, words[4:]))
            self.assertEqual(show.slides[0].name, words)
        own = self.edited(
            show_with(text("h", "Tick", "Tick", "heading"), name="Ours"), ChangeText("s", "h", "Tock", "x")
        )
        self.assertEqual(own.slides[0].name, "Ours")

    def test_several_edits_are_named_once(self) -> None:
        written = ChangeText("s", "a", "Seventy-eight turns of the crank, every second evening", "x")
        show = self.edited(show_with(), Several("Write", (AddObjects("s", (text("a"),)), written)))
        self.assertEqual(self.names(show), ["Seventy-eight turns of the crank…"])

    def test_a_new_slide_comes_with_the_names_it_has(self) -> None:
        fresh = Slide("t", "", objects=(text("h", "Who winds it?", "Heading", "heading"),))
        show = apply_edit(show_with(), AddSlide(1, fresh)).show
        self.assertEqual((show.slides[1].name, show.slides[1].objects[0].name), ("Who winds it?", "Who winds it?"))
