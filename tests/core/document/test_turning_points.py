import unittest

from msgspec.structs import replace

from ritornel.core.document.show import Show, Slide
from ritornel.core.document.themes import THEMES
from ritornel.core.document.turning_points import turning_point

SHOW = Show("s", "Show", slides=tuple(Slide(f"s{n}") for n in range(4)))


class TurningPointTest(unittest.TestCase):
    def test_large_changes_have_a_name_and_others_none(self) -> None:
        theme = next(theme for theme in THEMES.values() if theme != SHOW.theme)
        more = (*SHOW.slides, *(Slide(f"n{n}") for n in range(3)))
        cases = (
            (replace(SHOW, theme=theme), "Before the theme was changed"),
            (replace(SHOW, follows_take="Take 2"), "Before the timing was taken from a take"),
            (replace(SHOW, holds_by_cue={"c": 900}), "Before the timing was taken from a take"),
            (replace(SHOW, slides=more), "Before 3 slides came in"),
            (replace(SHOW, slides=more[:6]), ""),
            (replace(SHOW, slides=SHOW.slides[:1]), "Before 3 slides were removed"),
            (replace(SHOW, slides=SHOW.slides[:2]), ""),
            (replace(SHOW, slides=SHOW.slides[::-1]), ""),
            (replace(SHOW, title="Another"), ""),
        )
        for after, name in cases:
            self.assertEqual(turning_point(SHOW, after), name)
