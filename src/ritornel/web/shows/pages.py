"""The list of shows: searched, in folders, sorted, with copies of shows."""

from typing import Any

import msgspec
from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.show import Show as ShowValue
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.words import words_on
from ritornel.core.time.milliseconds import clock_text
from ritornel.core.wording import list_text, one_line
from ritornel.web.editor.services import people_at, style_stamp, thumb_address
from ritornel.web.people.services import WHERE, WORDS, called, person_of, shows_open_to
from ritornel.web.shows.models import Show, new_id
from ritornel.web.shows.persistence import create_rows, value_of, value_with
from ritornel.web.shows.services import owned_show, seen_slides, show_for

SORTS = {"changed": "Changed last", "title": "By title", "length": "Longest first"}
FOLDER_CHARACTERS = 60
TITLE_CHARACTERS = 200


@login_required
@require_GET
def show_list(request: HttpRequest) -> HttpResponse:
    """The person's shows by folder, and those they were invited to: `?q=` searches, `?sort=` sorts.

    Lengths need every slide, so all slides are loaded in one query.
    """
    person = person_of(request)
    others = shows_open_to(person)
    rows = (
        Show.objects.filter(Q(owner=person) | Q(pk__in=others))
        .select_related("owner")
        .prefetch_related("slides", "assets")
    )
    wanted = one_line(request.GET.get("q", ""))[:100]
    sort = request.GET.get("sort", "")
    entries = []
    for row in rows:
        row.access = others.get(row.pk, row.access)
        show = value_with(row, [entry.body for entry in row.slides.all()], [entry.body for entry in row.assets.all()])
        found = words_found(show, seen_slides(row, show), wanted)
        if found is not None:
            entries.append({**_entry(row, show, person), "found": found})
    if sort == "title":
        entries.sort(key=lambda entry: entry["row"].title.casefold())
    elif sort == "length":
        entries.sort(key=lambda entry: -entry["length_ms"])
    own = [entry for entry in entries if entry["row"].owner_id == person.pk]
    folders = sorted({entry["row"].folder for entry in own}, key=str.casefold)
    groups = [
        (folder or ("In no folder" if len(folders) > 1 else ""), [one for one in own if one["row"].folder == folder])
        for folder in folders
    ]
    shared = [entry for entry in entries if entry["row"].owner_id != person.pk]
    context = {
        "groups": [*groups, *([("Shared with you", shared)] if shared else [])],
        "folders": [folder for folder in folders if folder],
        "sorts": SORTS,
        "sort": sort if sort in SORTS else "changed",
        "q": wanted,
        "any": rows,
    }
    return render(request, "shows/list.html", context)


def words_found(show: ShowValue, seen: frozenset[str], wanted: str) -> str | None:
    """Where a show contains the searched words: in its title or one of its shown slides.

    Returns a sentence about the first place, an empty one where nothing is searched or the title has them, and None
    where the show does not have them.
    """
    needle = wanted.casefold()
    if not needle or needle in show.title.casefold():
        return ""
    for slide in show.slides:
        if slide.id not in seen:
            continue
        lines = [slide.name, *words_on(slide).split("\n"), *slide.notes.split("\n")]
        line = next((line for line in lines if needle in line.casefold()), None)
        if line is not None:
            at = line.casefold().index(needle)
            near = line[max(at - 20, 0) : at + len(needle) + 30].strip()
            return f"Slide {show.numbers[slide.id]}: {near}" if slide.id in show.numbers else f"“{slide.name}”: {near}"
    return None


def _entry(row: Show, show: ShowValue, person: User) -> dict[str, Any]:
    """A show as a line of the list."""
    seen = seen_slides(row, show)
    first = next((slide for slide in show.slides if not slide.skipped and slide.id in seen), None)
    length_ms = compile_show(show).length_ms
    here = [name for pk, name in people_at(row.pk) if pk != person.pk]
    return {
        "row": row,
        "count": len(show.slides),
        "length_ms": length_ms,
        "length": clock_text(length_ms).split(".")[0],
        "thumb": thumb_address(show, first, style_stamp(show), 1) if first else None,
        "open": reverse(WHERE[row.access.role], args=[row.pk]),
        "asked": WORDS.get(row.access.role, ""),
        "owner": called(row.owner),
        "here": list_text(here),
    }


def copied_title(title: str, taken: set[str]) -> str:
    """The title of a copy: the title with “copy”, numbered where that exists already.

    >>> copied_title("The bell", {"The bell"}), copied_title("The bell", {"The bell, copy"})
    ('The bell, copy', 'The bell, copy 2')
    """
    stem = title[: TITLE_CHARACTERS - 12]
    name, number = f"{stem}, copy", 1
    while name in taken:
        number += 1
        name = f"{stem}, copy {number}"
    return name


@login_required
@require_POST
def duplicate_show(request: HttpRequest, show_id: str) -> HttpResponse:
    """Copies a show: its slides, builds, notes and shelf. Takes, comments and releases stay with the original. Its
    title is `title`, or follows from the original's.
    """
    row, person = show_for(show_id, request, "edit"), person_of(request)
    taken = set(Show.objects.filter(owner=person).values_list("title", flat=True))
    title = one_line(request.POST.get("title", ""))[:TITLE_CHARACTERS] or copied_title(row.title, taken)
    copy = Show(id=new_id(), owner=person, folder=row.folder if row.owner_id == person.pk else "")
    with transaction.atomic():
        create_rows(copy, msgspec.structs.replace(value_of(row), id=copy.id, title=title))
    messages.info(request, f"“{title}” was made.")
    return redirect(f"{reverse('shows')}?made={copy.id}")


@login_required
@require_POST
def put_into_folder(request: HttpRequest, show_id: str) -> HttpResponse:
    """Puts a show of the person into a folder by its name; an empty name takes it out. A folder exists while it
    contains a show.
    """
    row = owned_show(show_id, request)
    folder = one_line(request.POST.get("folder", ""))
    if len(folder) > FOLDER_CHARACTERS:
        messages.error(
            request,
            f"The folder's name has {len(folder)} characters; it takes {FOLDER_CHARACTERS}. Nothing was changed.",
        )
        return redirect("shows")
    Show.objects.filter(pk=row.pk).update(folder=folder)
    messages.info(request, f"“{row.title}” lies in “{folder}”." if folder else f"“{row.title}” lies in no folder.")
    return redirect(f"{reverse('shows')}#{row.pk}")
