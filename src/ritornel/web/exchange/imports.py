"""Starting a show from a file that takes long to read: the worker reads it, the page shows the progress, and it can be
cancelled.
"""

import shutil

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.errors import BadMedia
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.exchange.import_jobs import came, folder_of, make, sweep
from ritornel.web.exchange.tasks import read_file
from ritornel.web.library.services import begin_work, write_down
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Reading

LOST_WORDS = "The worker stopped while it read this file, several times. Nothing was made; choose the file again."
CHOOSE_WORDS = {
    "archive": "Choose an archive first; its name ends in .ritornel.",
    "pdf": "Choose a PDF first.",
    "presentation": "Choose a presentation first; its name ends in .odp.",
}
State = Reading.State


@login_required
@require_POST
@answer_errors
def begin_reading(request: HttpRequest, kind: str) -> HttpResponse:
    """Queues the reading of an archive, a PDF or a presentation: {"reading": the address of its state}."""
    upload = request.FILES.get("file")
    if upload is None:
        raise BadMedia(CHOOSE_WORDS[kind])
    owner = person_of(request)
    sweep(owner)
    found = Reading(owner=owner, kind=kind, name=(upload.name or kind)[:120])
    folder_of(found.pk).mkdir(parents=True)
    try:
        write_down(
            upload,
            came(found.pk),
            found.name,
            settings.ARCHIVE_BYTES if kind == Reading.Kind.ARCHIVE else settings.MEDIA_LIMITS.file_bytes,
        )
        found.save()
    except BaseException:
        shutil.rmtree(folder_of(found.pk), ignore_errors=True)
        raise
    read_file(found.pk)
    return json_reply({"reading": reverse("reading", args=[found.pk])})


def _mine(request: HttpRequest, reading_id: str) -> Reading:
    found: Reading | None = person_of(request).readings.filter(pk=reading_id).first()
    if found is None:
        raise Http404("There is no such file being read.")
    return found


@login_required
@require_GET
def reading(request: HttpRequest, reading_id: str) -> HttpResponse:
    """The state of an import: {"state", "done", "total", "left_s", "message", "notices", "address", "plan", "make",
    "cancel"}. Where there is a plan, somebody has to confirm it.
    """
    found = _mine(request, reading_id)
    state = {State.INTERRUPTED: State.FAILED}.get(State(found.state), found.state)
    return json_reply(
        {
            "state": State.WAITING if found.lost else state,
            "done": found.done,
            "total": found.total,
            "left_s": found.left_s,
            "message": found.message,
            "notices": found.notices,
            "plan": found.plan,
            "address": reverse("compose", args=[found.show_id]) if found.show_id else None,
            "make": reverse("make-reading", args=[found.pk]),
            "cancel": reverse("cancel-reading", args=[found.pk]),
        }
    )


@login_required
@require_POST
@answer_errors
def make_show(request: HttpRequest, reading_id: str) -> HttpResponse:
    """Makes the show although something is lost: {"address", "notices"}."""
    found = _mine(request, reading_id)
    for asset in make(found):
        begin_work(asset)
    found.refresh_from_db()
    return json_reply({"address": reverse("compose", args=[found.show_id]), "notices": found.notices})


@login_required
@require_POST
@answer_errors
def cancel_reading(request: HttpRequest, reading_id: str) -> HttpResponse:
    """Cancels the import; nothing is made of the file."""
    found = _mine(request, reading_id)
    Reading.objects.filter(pk=found.pk).update(cancel_wanted=True)
    if Reading.objects.filter(pk=found.pk, state=State.READY, show=None).update(state=State.CANCELLED):
        shutil.rmtree(folder_of(found.pk), ignore_errors=True)
    return json_reply({})
