"""Edits of text."""

from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.document import running_order
from ritornel.core.document.alignment import round_to_tenth
from ritornel.core.document.cells import columns_of
from ritornel.core.document.edits.draft import Draft, object_of, objects_of, put, replace_objects, slide_of
from ritornel.core.document.objects import MOST_COLUMNS, Box, Id, Paragraph, Table, Text, TextHolder, TextRun
from ritornel.core.document.show import Show, Slide
from ritornel.core.document.text import check_length, with_words
from ritornel.core.errors import BadValue


class WrittenParagraph(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A paragraph from the editor; `id` is the paragraph it was before."""

    runs: tuple[TextRun, ...]
    list: Literal["none", "bullets", "numbers"] = "none"
    level: Annotated[int, Meta(ge=0, le=5)] = 0
    id: str = ""


def _copy_letters(slide: Slide, object_id: str) -> Text:
    item = object_of(slide, object_id)
    if not isinstance(item, TextHolder):
        raise BadValue(f"“{item.name}” holds no words.", "object_id")
    return item  # type: ignore[return-value]


def _rewrite(slide: Slide, item: Text, paragraphs: tuple[Paragraph, ...]) -> Draft:
    """The text with other paragraphs. Builds of removed paragraphs are removed too."""
    lost = {p.id for p in item.paragraphs} - {p.id for p in paragraphs}
    gone = {b.id for b in slide.order if b.object_id == item.id and b.part in lost}
    notices = (
        (f"{len(gone)} build{'s' if len(gone) > 1 else ''} of removed paragraphs went with them.",) if gone else ()
    )
    fresh = msgspec.structs.replace(item, paragraphs=paragraphs)
    if isinstance(fresh, Table):
        fresh = msgspec.structs.replace(fresh, columns=columns_of(fresh)[:MOST_COLUMNS])
    if getattr(item, "credits", False):
        fresh = msgspec.structs.replace(fresh, credits=False)
        notices = (*notices, f"“{item.name}” is written by hand now, and no longer follows what the show uses.")
    changes = put(slide, objects=replace_objects(slide, fresh), order=running_order.without_builds(slide.order, gone))
    return Draft(changes, f"Change the words of {item.name}", notices)


class ChangeText(msgspec.Struct, frozen=True, tag_field="do", tag="change text"):
    """Sets plain words. Paragraphs that stay keep their id, look and builds."""

    slide_id: Id
    object_id: Id
    text: str
    stem: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        item = _copy_letters(slide, self.object_id)
        return _rewrite(slide, item, with_words(item, self.text, self.stem).paragraphs)


class WriteText(msgspec.Struct, frozen=True, tag_field="do", tag="write text"):
    """Sets words with looks and lists.

    A paragraph keeps the id it names, if the text had that id and no earlier paragraph took it; its builds stay with
    it.
    """

    slide_id: Id
    object_id: Id
    paragraphs: tuple[WrittenParagraph, ...]
    stem: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        item = _copy_letters(slide, self.object_id)
        check_length(sum(len(run.text) + 1 for p in self.paragraphs for run in p.runs), item.name)
        free = {p.id for p in item.paragraphs}
        fresh: list[Paragraph] = []
        for number, written in enumerate(self.paragraphs or (WrittenParagraph((TextRun(""),)),), 1):
            own = written.id if written.id in free else f"{self.stem}-{number}"
            free.discard(own)
            runs = tuple(msgspec.structs.replace(run, text=run.text.replace("\n", " ")) for run in written.runs) or (
                TextRun(""),
            )
            fresh.append(Paragraph(own, runs, written.list, written.level))
        return _rewrite(slide, item, tuple(fresh))


class SplitText(msgspec.Struct, frozen=True, tag_field="do", tag="split text"):
    """Splits a text into one object a paragraph, one under the other; `tops` says where each begins (px from the text's
    top). The first keeps the object's id and the builds of the whole; the builds of a paragraph go with it.
    """

    slide_id: Id
    object_id: Id
    stem: Id
    tops: tuple[float, ...] = ()

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        item = object_of(slide, self.object_id)
        if not isinstance(item, Text) or len(item.paragraphs) < 2:
            raise BadValue(f"“{item.name}” has no second paragraph to split off.", "object_id")
        count = len(item.paragraphs)
        tops = self.tops if len(self.tops) == count else tuple(item.box.height * n / count for n in range(count))
        pieces: list[Text] = []
        owner: dict[str, str] = {}
        for number, paragraph in enumerate(item.paragraphs):
            end = (
                tops[number + 1]
                if number + 1 < count
                else max(item.box.height, tops[number] + item.size_px * item.line_spacing)
            )
            own = item.id if number == 0 else f"{self.stem}-{number}"
            box = Box(
                item.box.x,
                round_to_tenth(item.box.y + tops[number]),
                item.box.width,
                round_to_tenth(max(end - tops[number], 4)),
                item.box.turn_deg,
            )
            words = paragraph.text.strip()[:40] or f"{item.name} {number + 1}"
            pieces.append(
                msgspec.structs.replace(
                    item, id=own, name=words, box=box, paragraphs=(paragraph,), stand="top", overflow="spill", place=""
                )
            )
            owner[paragraph.id] = own
        at = slide.objects.index(item)
        order = tuple(
            msgspec.structs.replace(b, object_id=owner[b.part], part=None)
            if b.object_id == item.id and b.part in owner
            else b
            for b in slide.order
        )
        return Draft(
            put(slide, objects=(*slide.objects[:at], *pieces, *slide.objects[at + 1 :]), order=order),
            f"Split {item.name} into {count} texts",
        )


class JoinTexts(msgspec.Struct, frozen=True, tag_field="do", tag="join texts"):
    """Joins texts into one, from the top down, with the look of the topmost. Their builds become builds of the
    paragraphs.
    """

    slide_id: Id
    object_ids: tuple[Id, ...]

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        found = objects_of(slide, self.object_ids)
        texts = sorted((item for item in found if isinstance(item, Text)), key=lambda item: (item.box.y, item.box.x))
        if len(texts) < 2 or len(texts) < len(found):
            raise BadValue("Joining needs at least two texts, and nothing but texts.", "object_ids")
        first = texts[0]
        joined: list[Paragraph] = []
        owner: dict[str, str] = {}
        taken: set[str] = set()
        part_of: dict[tuple[str, str], str] = {}
        for text in texts:
            for paragraph in text.paragraphs:
                own = paragraph.id
                while own in taken:
                    own = f"{own}x"[:40] if len(own) < 40 else f"{len(taken)}-{own[:30]}"
                taken.add(own)
                owner.setdefault(text.id, own)
                part_of[text.id, paragraph.id] = own
                joined.append(msgspec.structs.replace(paragraph, id=own))
        bottom = max(text.box.y + text.box.height for text in texts)
        right = max(text.box.x + text.box.width for text in texts)
        box = msgspec.structs.replace(
            first.box, width=round_to_tenth(right - first.box.x), height=round_to_tenth(bottom - first.box.y)
        )
        whole = msgspec.structs.replace(first, box=box, paragraphs=tuple(joined))
        gone = {text.id for text in texts[1:]}
        ids = gone | {first.id}
        order = tuple(
            msgspec.structs.replace(
                b, object_id=first.id, part=part_of[b.object_id, b.part] if b.part else owner[b.object_id]
            )
            if b.object_id in ids
            else b
            for b in slide.order
        )
        objects = tuple(whole if item.id == first.id else item for item in slide.objects if item.id not in gone)
        return Draft(put(slide, objects=objects, order=order), f"Join {len(texts)} texts")
