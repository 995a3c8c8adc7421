import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import Asset, Box, Build, Follows, MusicSpan, Picture, Show, Slide
from ritornel.core.document import edits as e
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.credits import credit_lines
from ritornel.core.errors import BadValue
from ritornel.core.schedule.performance import perform


def asset(name: str, author: str = "", licence: str = "", credit: str = "") -> Asset:
    return Asset(
        name,
        name.title(),
        "ab" * 32,
        "image/png",
        size_bytes=10,
        width_px=40,
        height_px=30,
        author=author,
        licence=licence,
        credit=credit,
    )


def show_with(*used: str) -> Show:
    assets = (
        asset("tower", "Ines", "CC BY 4.0"),
        asset("dial", "Ines", "CC BY 4.0"),
        asset("bell", credit="Bell: O. Odo, with kind leave"),
        asset("crank"),
    )
    objects = tuple(Picture(name, name.title(), Box(0, 0, 40, 30), name) for name in used)
    waltz = msgspec.structs.replace(asset("waltz", "Winders", "CC0"), lasts_ms=9000)
    return Show("show", "Show", slides=(Slide("s", objects=objects),), assets=(*assets, waltz))


def words(show: Show) -> list[str]:
    return [paragraph.text for paragraph in show.slides[-1].objects[1].paragraphs]  # type: ignore[union-attr]


class CreditsTest(SimpleTestCase):
    def test_each_author_is_named_once_with_what_is_theirs_in_the_order_of_use(self) -> None:
        self.assertEqual(
            credit_lines(show_with("bell", "tower", "crank", "dial")),
            ("Bell: Bell: O. Odo, with kind leave", "Tower, Dial: Ines, CC BY 4.0"),
        )

    def test_one_act_makes_a_closing_slide_that_can_be_performed_and_undone(self) -> None:
        show = show_with("tower")
        done = e.apply_edit(show, e.GatherCredits("thx"))
        self.assertEqual((done.label, words(done.show)), ("Gather the credits", ["Tower: Ines, CC BY 4.0"]))
        perform(done.show)
        self.assertEqual(apply_changes(done.show, done.inverse)[0], show)

    def test_it_keeps_itself_true_whatever_is_used_changed_or_taken_away(self) -> None:
        show = e.apply_edit(show_with("tower", "dial"), e.GatherCredits("thx")).show
        music = e.apply_edit(show, e.PutSpan(MusicSpan(id="m", asset_id="waltz")))
        self.assertEqual(words(music.show), ["Tower, Dial: Ines, CC BY 4.0", "Waltz: Winders, CC0"])
        self.assertEqual(apply_changes(music.show, music.inverse)[0], show, "and one undo takes both back")
        renamed = e.apply_edit(music.show, e.ChangeAsset("waltz", {"author": "The winders"})).show
        self.assertEqual(words(renamed)[1], "Waltz: The winders, CC0")
        fewer = e.apply_edit(renamed, e.RemoveObjects("s", ("tower", "dial"))).show
        self.assertEqual(words(fewer), ["Waltz: The winders, CC0"])

    def test_a_line_that_stays_keeps_its_build_and_one_that_goes_takes_it_along(self) -> None:
        show = e.apply_edit(show_with("tower", "bell"), e.GatherCredits("thx")).show
        text = show.slides[-1].objects[1]
        for number, paragraph in enumerate(text.paragraphs):  # type: ignore[union-attr]
            show = e.apply_edit(
                show,
                e.AddBuild(
                    "thx-s",
                    Build(
                        id=f"b{number}", object_id=text.id, effect="enters fade", starts=Follows(), part=paragraph.id
                    ),
                ),
            ).show
        after = e.apply_edit(show, e.RemoveObjects("s", ("tower",))).show.slides[-1]
        self.assertEqual([build.id for build in after.order], ["b1"])

    def test_written_by_hand_it_no_longer_follows_which_is_told(self) -> None:
        show = e.apply_edit(show_with("tower"), e.GatherCredits("thx")).show
        done = e.apply_edit(show, e.ChangeText("thx-s", "thx-w", "Thanks to all", "n"))
        self.assertEqual(done.notices, ("“Credits” is written by hand now, and no longer follows what the show uses.",))
        self.assertEqual(
            words(e.apply_edit(done.show, e.PutSpan(MusicSpan(id="m", asset_id="waltz"))).show), ["Thanks to all"]
        )

    def test_where_nothing_is_known_or_a_slide_does_it_already_it_is_told(self) -> None:
        with self.assertRaisesMessage(
            BadValue, "Nothing that the show uses has an author, a licence or a credit yet; write them on the shelf."
        ):
            e.apply_edit(show_with("crank"), e.GatherCredits("thx"))
        show = e.apply_edit(show_with("tower"), e.GatherCredits("thx")).show
        with self.assertRaisesMessage(
            BadValue, "Slide “Credits” credits what the show uses already, and keeps itself true."
        ):
            e.apply_edit(show, e.GatherCredits("again"))
