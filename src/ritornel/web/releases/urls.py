from django.urls import path

from ritornel.web.releases import editions, guests, handing_in, mending, offline, public, views

urlpatterns = [
    path("shows/<str:show_id>/release", views.release, name="release"),
    path("shows/<str:show_id>/editions", editions.make_edition, name="editions"),
    path("shows/<str:show_id>/editions/<int:number>.zip", editions.edition_folder, name="edition-folder"),
    path("shows/<str:show_id>/checks/aside", views.set_aside, name="set-aside"),
    path("shows/<str:show_id>/checks/mend.json", mending.mend_preview, name="mend-preview"),
    path("shows/<str:show_id>/checks.json", views.checks, name="checks"),
    path("shows/<str:show_id>/release/settings", views.change_settings, name="release-settings"),
    path("shows/<str:show_id>/films", views.films, name="films"),
    path("shows/<str:show_id>/films/<str:job_id>/cancel", views.cancel_film, name="cancel-film"),
    path("shows/<str:show_id>/films/<str:job_id>/again", views.film_again, name="film-again"),
    path("shows/<str:show_id>/films/<str:job_id>/remove", views.remove_film, name="remove-film"),
    path("shows/<str:show_id>/films/<str:job_id>/file", views.film_file, name="film-file"),
    path("shows/<str:show_id>/offline.json", offline.weight, name="offline-weight"),
    path("shows/<str:show_id>/offline.html", offline.single_file, name="offline-file"),
    path("shows/<str:show_id>/offline.zip", offline.folder, name="offline-folder"),
    path("shows/<str:show_id>/films/<str:job_id>/hand-in", handing_in.hand_in, name="hand-in"),
    path("handed-in/", handing_in.handed_in, name="handed-in"),
    path("handed-in/<str:entry_id>/file", handing_in.handed_in_file, name="handed-in-file"),
    path("handed-in/<str:entry_id>/put-away", handing_in.put_away, name="put-away"),
    path("shows/<str:show_id>/guests", guests.invite, name="guests"),
    path("shows/<str:show_id>/guests/<int:number>", guests.shut_out, name="shut-out"),
    path("s/<str:address>/ask", guests.ask, name="ask-in"),
    path("s/<str:address>/for/<str:code>/", guests.guest, name="guest"),
    path("s/<str:address>/", public.watch, name="watch"),
    path("s/<str:address>/news", public.news, name="release-news"),
    path("s/<str:address>/<int:number>/<str:name>", public.edition_file, name="edition-file"),
]
