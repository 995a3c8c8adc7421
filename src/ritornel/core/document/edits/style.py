"""Edits of what all slides share: settings, frame, theme and furniture."""

from typing import Any

import msgspec

from ritornel.core.document.changes import Change, PutHabits, PutSettings, PutSlide, PutStyle, settings_of, style_of
from ritornel.core.document.decoding import replace_fields
from ritornel.core.document.edits.draft import Draft
from ritornel.core.document.integrity import check_ground, style_assets
from ritornel.core.document.layouts import refit_slide
from ritornel.core.document.objects import PictureBackground
from ritornel.core.document.show import Frame, Habits, Show
from ritornel.core.document.theme import Furniture, Theme, roles_and_literals
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.wording import one_line


class ChangeShow(msgspec.Struct, frozen=True, tag_field="do", tag="change show"):
    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        if isinstance(self.changes.get("title"), str) and not one_line(self.changes["title"]):
            raise BadValue("A show needs a title.", "title")
        settings: PutSettings = replace_fields(settings_of(show), self.changes, PutSettings, f"Changing “{show.title}”")
        return Draft((settings,), f"Change {', '.join(sorted(self.changes)).replace('_', ' ')} of the show")


class ChangeHabits(msgspec.Struct, frozen=True, tag_field="do", tag="change habits"):
    """Changes what new builds are like. Builds that exist stay as they are."""

    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        habits: Habits = replace_fields(show.habits, self.changes, Habits, "Changing the habits of the show")
        return Draft((PutHabits(habits),), "Change the habits of the show")


def _restyle(show: Show, style: PutStyle, label: str, notices: tuple[str, ...] = ()) -> Draft:
    fresh = [refit_slide(slide, (show.theme, show.frame), (style.theme, style.frame)) for slide in show.slides]
    changes: list[Change] = [PutSlide(slide) for slide, old in zip(fresh, show.slides, strict=True) if slide is not old]
    after = msgspec.structs.replace(show, theme=style.theme, furniture=style.furniture)
    for asset_id in style_assets(after):
        if show.asset(asset_id) is None:
            raise UnknownName(f"{label}: it uses a picture that is not on the shelf (“{asset_id}”).")
    return Draft((style, *changes), label, notices)


def count_following(show: Show) -> tuple[int, int, int, int]:
    """How many slides use the theme's background and how many their own; how many objects follow the theme, and how
    many have a colour or font set by hand.
    """
    own_ground = sum(slide.background is not None for slide in show.slides)
    follow, by_hand = 0, 0
    for slide in show.slides:
        for item in slide.objects:
            roles, literals = roles_and_literals(item)
            by_hand += bool(literals)
            follow += bool(roles and not literals)
    return len(show.slides) - own_ground, own_ground, follow, by_hand


def _count(number: int, thing: str) -> str:
    return f"{number} {thing}{'' if number == 1 else 's'}"


class ChangeTheme(msgspec.Struct, frozen=True, tag_field="do", tag="change theme"):
    """Gives the show another theme.

    Everything that names a role follows; what was set by hand stays. Messages give the numbers of both.
    """

    theme: Theme

    def draft(self, show: Show) -> Draft:
        for ground in (self.theme.ground, self.theme.opening):
            if isinstance(ground, PictureBackground) and show.asset(ground.asset_id) is not None:
                check_ground(show, ground, "Changing the theme")
        grounds, own, follow, by_hand = count_following(show)
        told = f"“{self.theme.name}”: {_count(grounds, 'slide')} and {_count(follow, 'object')} follow the theme"
        told += (
            (f"; {_count(own, 'background')} and {_count(by_hand, 'object')} set by hand stay as they are.")
            if own or by_hand
            else "."
        )
        style = msgspec.structs.replace(style_of(show), theme=self.theme)
        return _restyle(show, style, f"Change the theme to {self.theme.name}", (told,))


class ChangeFrame(msgspec.Struct, frozen=True, tag_field="do", tag="change frame"):
    """Changes the size of the frame. Everything is fitted again; nothing is lost."""

    frame: Frame

    def draft(self, show: Show) -> Draft:
        style = msgspec.structs.replace(style_of(show), frame=self.frame)
        return _restyle(show, style, f"Change the frame to {self.frame.width_px} × {self.frame.height_px}")


class ChangeFurniture(msgspec.Struct, frozen=True, tag_field="do", tag="change furniture"):
    """Changes footer, slide numbers and mark."""

    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        furniture: Furniture = replace_fields(
            show.furniture, self.changes, Furniture, "Changing what stands on every slide"
        )
        return _restyle(
            show, msgspec.structs.replace(style_of(show), furniture=furniture), "Change what stands on every slide"
        )
