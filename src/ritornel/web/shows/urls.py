"""Addresses of the list of shows and of new shows."""

from django.urls import path

from ritornel.web.shows import bin, bin_of_show, pages, starting

urlpatterns = [
    path("", pages.show_list, name="shows"),
    path("shows/new", starting.new_show, name="new-show"),
    path("shows/start", starting.start_page, name="start"),
    path("starters/<name:name>/<number:number>.png", starting.starter_still, name="starter-still"),
    path("shows/<id:show_id>/remove", bin.remove_show, name="remove-show"),
    path("shows/<id:show_id>/duplicate", pages.duplicate_show, name="duplicate-show"),
    path("shows/<id:show_id>/folder", pages.put_into_folder, name="folder"),
    path("shows/<id:show_id>/bin", bin_of_show.show_bin, name="show-bin"),
    path("shows/<id:show_id>/bin/entry/<id:asset_id>/remove", bin_of_show.forget_entry, name="forget-entry"),
    path("shows/<id:show_id>/bin/slide/<id:slide_id>/remove", bin_of_show.forget_slide, name="forget-slide"),
    path(
        "shows/<id:show_id>/bin/<name:kind>/<id:entry_id>/back", bin_of_show.bring_entry_back, name="bring-entry-back"
    ),
    path("shows/<id:show_id>/bin/<name:kind>/<id:entry_id>/remove", bin_of_show.remove_entry, name="remove-entry"),
    path("bin/", bin.bin_page, name="bin"),
    path("bin/<id:show_id>/bring-back", bin.bring_show_back, name="bring-show-back"),
    path("bin/<id:show_id>/remove", bin.remove_for_good, name="remove-for-good"),
    path("shows/<id:show_id>/slides-from-pictures", starting.slides_from_pictures, name="slides-from-pictures"),
]
