"""A show as an archive, to keep or to move to another Ritornel."""

from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.shortcuts import redirect
from django.views.decorators.http import require_GET

from ritornel.core.errors import RitornelError
from ritornel.core.formats.archive import write_archive
from ritornel.web.config.downloads import saved_reply
from ritornel.web.config.file_names import file_title
from ritornel.web.shows.services import media_path, show_for, value_of


@login_required
@require_GET
def export_show(request: HttpRequest, show_id: str) -> HttpResponseBase:
    """The show as an archive."""
    row = show_for(show_id, request)
    try:
        return saved_reply(
            lambda out: write_archive(value_of(row), out, media_path),
            f"{file_title(row.title)}.ritornel",
            "application/zip",
        )
    except RitornelError as error:
        messages.error(request, str(error))
        return redirect("shows")
