"""Addresses of help and of the first show."""

from django.urls import path

from ritornel.web.help import first_show, pages

urlpatterns = [
    path("help/", pages.help_page, name="help"),
    path("help/example.json", pages.example, name="example"),
    path("help/example/<id:asset_id>", pages.example_media, name="example-media"),
    path("help/first-show", first_show.begin_first_show, name="begin-first-show"),
    path("help/<id:name>", pages.help_page, name="help-topic"),
    path("shows/<id:show_id>/first.json", first_show.first_show_state, name="first-show-state"),
    path("shows/<id:show_id>/first/leave", first_show.leave_first_show, name="leave-first-show"),
]
