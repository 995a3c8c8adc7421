"""Addresses for importing and exporting shows as files."""

import re

from django.urls import path, register_converter
from django.urls.converters import StringConverter

from ritornel.core.formats.exports import EXPORTS
from ritornel.web.exchange import archives, imports, presentations, text_formats


class _Export(StringConverter):
    """The address of an existing format."""

    regex = "|".join(map(re.escape, EXPORTS))


register_converter(_Export, "export")

urlpatterns = [
    path("shows/<id:show_id>/archive", archives.export_show, name="archive"),
    path("shows/from-archive", imports.begin_reading, {"kind": "archive"}, name="from-archive"),
    path("shows/from-pdf", imports.begin_reading, {"kind": "pdf"}, name="from-pdf"),
    path("shows/from-presentation", imports.begin_reading, {"kind": "presentation"}, name="from-presentation"),
    path("readings/<id:reading_id>.json", imports.reading, name="reading"),
    path("readings/<id:reading_id>/make", imports.make_show, name="make-reading"),
    path("readings/<id:reading_id>/cancel", imports.cancel_reading, name="cancel-reading"),
    path("shows/<id:show_id>/presentation.json", presentations.losses_out, name="presentation-losses"),
    path("shows/<id:show_id>/presentation.odp", presentations.presentation_out, name="presentation"),
    path("shows/from-outline", text_formats.show_from_outline, name="from-outline"),
    path("shows/<id:show_id>/<export:address>", text_formats.export_out, name="export"),
    path("shows/<id:show_id>/timings", text_formats.timings_in, name="timings-in"),
]
