"""Addresses of the list of shows and of new shows."""

from django.urls import path

from ritornel.web.shows import pages, starting

urlpatterns = [
    path("", pages.show_list, name="shows"),
    path("shows/new", starting.new_show, name="new-show"),
    path("shows/start", starting.start_page, name="start"),
    path("starters/<name:name>/<number:number>.png", starting.starter_still, name="starter-still"),
    path("shows/<id:show_id>/remove", pages.remove_show, name="remove-show"),
    path("shows/<id:show_id>/slides-from-pictures", starting.slides_from_pictures, name="slides-from-pictures"),
]
