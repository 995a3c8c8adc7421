"""All addresses."""

from django.urls import include, path
from django.views.generic import RedirectView

from ritornel.web.config.bounded_input import register_converters

register_converters()
urlpatterns = [
    # Browsers ask for this of their own accord, also where a page names its icon.
    path("favicon.ico", RedirectView.as_view(url="/static/ritornel/mark.svg", permanent=True)),
    path("", include("ritornel.web.shows.urls")),
    path("", include("ritornel.web.editor.urls")),
    path("", include("ritornel.web.library.urls")),
    path("", include("ritornel.web.exchange.urls")),
    path("", include("ritornel.web.people.urls")),
    path("", include("ritornel.web.stage.urls")),
    path("shows/<id:show_id>/", include("ritornel.web.takes.urls")),
    path("", include("ritornel.web.releases.urls")),
    path("", include("ritornel.web.operations.urls")),
    path("", include("ritornel.web.help.urls")),
]
