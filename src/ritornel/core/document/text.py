"""Plain text of a text object, read and written."""

import difflib
from typing import TypeVar

import msgspec

from ritornel.core.document.objects import Paragraph, TextHolder, TextRun
from ritornel.core.errors import BadValue

LONGEST_TEXT = 100_000


def words_of(item: TextHolder) -> str:
    """The plain text, one line a paragraph."""
    return "\n".join(paragraph.text for paragraph in item.paragraphs)


L = TypeVar("L", bound=TextHolder)


def check_length(count: int, name: str) -> None:
    """Raises BadValue for more than 100 000 characters."""
    if count > LONGEST_TEXT:
        raise BadValue(f"“{name}” would have {count:,} characters; a text holds up to {LONGEST_TEXT:,}.", "text")


def with_words(item: L, words: str, stem: str) -> L:
    """The text object with other plain text.

    Unchanged lines keep their paragraph; a changed line keeps the id of the line it replaces, so that builds follow it.
    New ids are `stem-1`, `stem-2` ... Raises BadValue for more than 100 000 characters.
    """
    check_length(len(words), getattr(item, "name", "The text"))
    lines = words.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    old = item.paragraphs
    taken = {paragraph.id for paragraph in old}
    result: list[Paragraph] = []
    number = 0
    for op, i1, i2, j1, j2 in difflib.SequenceMatcher(None, [p.text for p in old], lines, autojunk=False).get_opcodes():
        if op == "equal":
            result.extend(old[i1:i2])
            continue
        for offset, line in enumerate(lines[j1:j2]):
            if op == "replace" and i1 + offset < i2:
                former = old[i1 + offset]
                look = former.runs[0] if former.runs else TextRun("")
                result.append(msgspec.structs.replace(former, runs=(msgspec.structs.replace(look, text=line),)))
                continue
            number += 1
            while f"{stem}-{number}" in taken:
                number += 1
            result.append(Paragraph(f"{stem}-{number}", (TextRun(line),)))
    return msgspec.structs.replace(item, paragraphs=tuple(result))
