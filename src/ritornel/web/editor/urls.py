"""Addresses of the editor."""

from django.urls import path

from ritornel.web.editor import api, history, loudness, pages, presence, previews, show_feed

urlpatterns = [
    path("shows/samples.json", previews.samples, name="samples"),
    path("shows/<id:show_id>/preview", previews.preview, name="preview"),
    path("shows/themes.json", api.themes, name="themes"),
    path("shows/<id:show_id>/", pages.compose, name="compose"),
    path("shows/<id:show_id>/score.json", api.score, name="score"),
    path("shows/<id:show_id>/changes.json", api.changes, name="changes"),
    path("shows/<id:show_id>/slides/<id:slide_id>.json", api.slide, name="slide"),
    path("shows/<id:show_id>/edit", api.edit, name="edit"),
    path("shows/<id:show_id>/slides/<id:slide_id>/ties.json", api.slide_ties, name="slide-ties"),
    path("shows/<id:show_id>/voices/pairs", api.voice_pairs, name="voice-pairs"),
    path("shows/<id:show_id>/would", api.would, name="would"),
    path("shows/<id:show_id>/differences.json", api.differences, name="differences"),
    path("shows/<id:show_id>/lengths", api.lengths, name="lengths"),
    path("shows/<id:show_id>/history", history.history, name="history"),
    path("shows/<id:show_id>/history/points", history.name_point, name="name-point"),
    path("shows/<id:show_id>/history/<number:revision>", history.point, name="point"),
    path("shows/<id:show_id>/history/<number:revision>/<id:slide_id>.png", history.point_picture, name="point-picture"),
    path(
        "shows/<id:show_id>/history/<number:revision>/media/<id:asset_id>/<number:rate_pct>",
        history.point_media,
        name="point-media",
    ),
    path("shows/<id:show_id>/history/<number:revision>/back", history.return_to, name="return-to"),
    path("shows/<id:show_id>/undo", api.undo_edit, name="undo"),
    path("shows/<id:show_id>/redo", api.redo_edit, name="redo"),
    path("shows/<id:show_id>/loudness.json", loudness.loudness, name="loudness"),
    path("shows/<id:show_id>/slides/<id:slide_id>/theme/<name:theme>.png", api.theme_preview, name="theme-preview"),
    path("shows/<id:show_id>/thumbs/<id:slide_id>/<id:stamp>.png", api.thumb, name="thumb"),
    path("shows/<id:show_id>/events", show_feed.events, name="events"),
    path("shows/<id:show_id>/here", presence.here, name="here"),
]
