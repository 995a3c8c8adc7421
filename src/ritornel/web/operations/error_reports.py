"""Faults in pages' scripts, for the log."""

import logging

from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_POST

from ritornel.core.wording import one_line
from ritornel.web.config.rate_limits import Brake
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.services import network_address

log = logging.getLogger("ritornel.page")
FAULTS = Brake("faults of pages", "20/minute;200/day")


@require_POST
@answer_errors
def note_fault(request: HttpRequest) -> HttpResponse:
    """Logs a fault of a page: {"message", "where", "stack", "page"}."""
    FAULTS.apply(network_address(request), words="Many faults were told from here.")
    body = body_of(request)
    told = {name: one_line(str(body.get(name, "")))[:3000] for name in ("page", "message", "where", "stack")}
    log.error("%(page)s: %(message)s (%(where)s) %(stack)s", told)
    return json_reply({})
