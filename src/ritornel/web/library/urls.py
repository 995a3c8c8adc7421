"""Addresses of the shelf and the catalogue."""

from django.urls import path

from ritornel.web.library import catalogue, shelf

urlpatterns = [
    path("shows/<id:show_id>/shelf", shelf.add_to_shelf, name="shelf"),
    path("shows/<id:show_id>/shelf/library/<name:name>", shelf.add_from_library, name="shelf-library"),
    path("shows/<id:show_id>/catalogue", catalogue.search, name="catalogue"),
    path("shows/<id:show_id>/catalogue/<id:entry_id>", catalogue.bring_entry, name="catalogue-bring"),
    path("shows/<id:show_id>/catalogue/<id:entry_id>/sample", catalogue.sample, name="catalogue-sample"),
    path("shows/<id:show_id>/videos", catalogue.bring_video, name="videos"),
    path("shows/<id:show_id>/shelf/smalls.json", shelf.smalls, name="smalls"),
    path("shows/<id:show_id>/shelf/elsewhere.json", shelf.elsewhere, name="shelf-elsewhere"),
    path("shows/<id:show_id>/bring", shelf.bring, name="bring"),
    path("shows/<id:show_id>/media/<id:asset_id>", shelf.media, name="media"),
    path("shows/<id:show_id>/media/<id:asset_id>/again", shelf.add_again, name="media-again"),
    path("shows/<id:show_id>/media/<id:asset_id>/v<number:renderer>/light", shelf.lighter, name="media-light"),
    path(
        "shows/<id:show_id>/media/<id:asset_id>/v<number:renderer>/at/<number:rate_pct>",
        shelf.at_tempo,
        name="media-tempo",
    ),
    path("shows/<id:show_id>/captions", shelf.captions_in, name="captions-in"),
    path("shows/<id:show_id>/media/<id:asset_id>/v<number:renderer>/small", shelf.small, name="small"),
    path("shows/<id:show_id>/media/<id:asset_id>/v<number:renderer>/strip", shelf.strip, name="strip"),
    path("shows/<id:show_id>/media/<id:asset_id>/v<number:renderer>/strip.json", shelf.strip_ready, name="strip-ready"),
    path("shows/<id:show_id>/media/<id:asset_id>/v<number:renderer>/wave.json", shelf.wave_ready, name="wave"),
    path(
        "shows/<id:show_id>/media/<id:asset_id>/v<number:renderer>/wave/<number:per_s>/<number:first>",
        shelf.wave_peaks,
        name="wave-peaks",
    ),
]
