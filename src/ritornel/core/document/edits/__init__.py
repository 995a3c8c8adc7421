"""Edits: what a person asks for, as values. Each is one small class that says which exact changes it makes."""

import msgspec

from ritornel.core.document.anchors import find_changed_carries
from ritornel.core.document.changes import Change, apply_changes
from ritornel.core.document.credits import update_credits
from ritornel.core.document.edits.builds import (
    AddBuild,
    BuildByParagraphs,
    ChangeBuild,
    MoveBeat,
    MoveBuild,
    PlaceBuild,
    RemoveBuild,
    StartBuilds,
)
from ritornel.core.document.edits.draft import Draft
from ritornel.core.document.edits.framings import AddFraming, ChangeFraming, ChangeSize, RemoveFraming
from ritornel.core.document.edits.greetings import PutGreeting, PutRecorded
from ritornel.core.document.edits.marks import PutMark, RemoveMark
from ritornel.core.document.edits.objects import (
    AddDrawing,
    AddObjects,
    ArrangeObjects,
    ChangeObjects,
    CopyBuilds,
    CopyLook,
    CutPicture,
    DriftPictures,
    FollowTheme,
    GroupObjects,
    MoveObjects,
    PlaceAsBefore,
    RemoveObjects,
    ReplacePicture,
    ScaleObjects,
    SizeObject,
    StackObjects,
)
from ritornel.core.document.edits.shelf import (
    AddAssets,
    ChangeAsset,
    DropAssets,
    GatherCredits,
    PutSpan,
    RemoveSpan,
    ReplaceAsset,
)
from ritornel.core.document.edits.slides import (
    AddSlide,
    ChangeLayout,
    ChangeSlides,
    DriftSlides,
    DuplicateSlides,
    RemoveSlides,
    ReorderSlides,
)
from ritornel.core.document.edits.spares import BringBack, RemoveSpare
from ritornel.core.document.edits.style import ChangeFrame, ChangeFurniture, ChangeHabits, ChangeShow, ChangeTheme
from ritornel.core.document.edits.tables import AddColumn, ChangeColumn, RemoveColumn
from ritornel.core.document.edits.texts import ChangeText, JoinTexts, SplitText, WriteText
from ritornel.core.document.edits.values import PlacedValue, PutValues
from ritornel.core.document.edits.voices import PutVoice, TrimVoice
from ritornel.core.document.integrity import check_ids, check_sounds
from ritornel.core.document.naming import update_names
from ritornel.core.document.show import Show


class Several(msgspec.Struct, frozen=True, tag_field="do", tag="several"):
    """Several edits as one, under one label: one undo takes all of them back."""

    label: str
    edits: tuple["Edit", ...]

    def draft(self, show: Show) -> Draft:
        done: list[Change] = []
        told: list[str] = []
        for edit in self.edits:
            part = edit.draft(show)
            show, _ = apply_changes(show, part.changes)
            done.extend(part.changes)
            told.extend(part.notices)
        return Draft(tuple(done), self.label, tuple(told))


Edit = (
    AddSlide
    | DuplicateSlides
    | RemoveSlides
    | ReorderSlides
    | ChangeSlides
    | ChangeLayout
    | DriftSlides
    | BringBack
    | RemoveSpare
    | AddObjects
    | AddDrawing
    | RemoveObjects
    | ChangeObjects
    | MoveObjects
    | SizeObject
    | ScaleObjects
    | ArrangeObjects
    | StackObjects
    | GroupObjects
    | PlaceAsBefore
    | CopyLook
    | CopyBuilds
    | FollowTheme
    | ReplacePicture
    | CutPicture
    | DriftPictures
    | ChangeText
    | WriteText
    | SplitText
    | JoinTexts
    | AddColumn
    | RemoveColumn
    | ChangeColumn
    | AddBuild
    | RemoveBuild
    | MoveBuild
    | PlaceBuild
    | MoveBeat
    | ChangeBuild
    | StartBuilds
    | BuildByParagraphs
    | ChangeSize
    | AddFraming
    | ChangeFraming
    | RemoveFraming
    | ChangeShow
    | ChangeTheme
    | ChangeFrame
    | ChangeFurniture
    | ChangeHabits
    | PutMark
    | RemoveMark
    | AddAssets
    | DropAssets
    | ChangeAsset
    | ReplaceAsset
    | GatherCredits
    | PutSpan
    | RemoveSpan
    | PutVoice
    | TrimVoice
    | PutGreeting
    | PutRecorded
    | PutValues
    | Several
)


class EditOutcome(msgspec.Struct, frozen=True):
    """The outcome of an edit: the new show, its changes, their inverse, the label, and messages for the maker."""

    show: Show
    changes: tuple[Change, ...]
    inverse: tuple[Change, ...]
    label: str
    notices: tuple[str, ...] = ()


def apply_edit(show: Show, edit: Edit) -> EditOutcome:
    """The outcome of the edit; the given show stays as it is. Raises RitornelError where it cannot be done."""
    draft = edit.draft(show)
    return make_changes(show, draft.changes, draft.label, draft.notices)


def make_changes(show: Show, changes: tuple[Change, ...], label: str, notices: tuple[str, ...] = ()) -> EditOutcome:
    """The outcome of changes, with what follows from them: credits and automatic names are brought up to date. Raises
    RitornelError where ids or sounds would not fit together.
    """
    result, inverse = apply_changes(show, changes)
    check_ids(result)
    check_sounds(show, result)
    credits_now = update_credits(result)
    result, before_credits = apply_changes(result, credits_now)
    names_now = update_names(show, result)
    result, before_names = apply_changes(result, names_now)
    return EditOutcome(
        result,
        (*changes, *credits_now, *names_now),
        (*before_names, *before_credits, *inverse),
        label,
        notices + find_changed_carries(show, result),
    )


__all__ = [
    "AddAssets",
    "AddBuild",
    "AddColumn",
    "AddDrawing",
    "AddFraming",
    "AddObjects",
    "AddSlide",
    "ArrangeObjects",
    "BringBack",
    "BuildByParagraphs",
    "ChangeAsset",
    "ChangeBuild",
    "ChangeColumn",
    "ChangeFrame",
    "ChangeFraming",
    "ChangeFurniture",
    "ChangeHabits",
    "ChangeLayout",
    "ChangeObjects",
    "ChangeShow",
    "ChangeSize",
    "ChangeSlides",
    "ChangeText",
    "ChangeTheme",
    "CopyBuilds",
    "CopyLook",
    "CutPicture",
    "DriftPictures",
    "DriftSlides",
    "DropAssets",
    "DuplicateSlides",
    "Edit",
    "EditOutcome",
    "FollowTheme",
    "GatherCredits",
    "GroupObjects",
    "JoinTexts",
    "MoveBeat",
    "MoveBuild",
    "MoveObjects",
    "PlaceAsBefore",
    "PlaceBuild",
    "PlacedValue",
    "PutMark",
    "PutSpan",
    "PutValues",
    "PutVoice",
    "RemoveBuild",
    "RemoveColumn",
    "RemoveFraming",
    "RemoveMark",
    "RemoveObjects",
    "RemoveSlides",
    "RemoveSpan",
    "RemoveSpare",
    "ReorderSlides",
    "ReplaceAsset",
    "ReplacePicture",
    "ScaleObjects",
    "Several",
    "SizeObject",
    "SplitText",
    "StackObjects",
    "StartBuilds",
    "TrimVoice",
    "WriteText",
    "apply_edit",
    "make_changes",
]
