from django.urls import path

from ritornel.web.releases import editions, fix_preview, guests, handing_in, offline, public, views

urlpatterns = [
    path("shows/<id:show_id>/release", views.release, name="release"),
    path("shows/<id:show_id>/editions", editions.make_edition, name="editions"),
    path("shows/<id:show_id>/editions/<number:number>.zip", editions.edition_folder, name="edition-folder"),
    path("shows/<id:show_id>/checks/aside", views.set_aside, name="set-aside"),
    path("shows/<id:show_id>/checks/fix.json", fix_preview.fix_preview, name="fix-preview"),
    path("shows/<id:show_id>/checks.json", views.checks, name="checks"),
    path("shows/<id:show_id>/release/settings", views.change_settings, name="release-settings"),
    path("shows/<id:show_id>/films", views.films, name="films"),
    path("shows/<id:show_id>/films/<id:job_id>/cancel", views.cancel_film, name="cancel-film"),
    path("shows/<id:show_id>/films/<id:job_id>/again", views.film_again, name="film-again"),
    path("shows/<id:show_id>/films/<id:job_id>/remove", views.remove_film, name="remove-film"),
    path("shows/<id:show_id>/films/<id:job_id>/file", views.film_file, name="film-file"),
    path("shows/<id:show_id>/offline.json", offline.weight, name="offline-weight"),
    path("shows/<id:show_id>/offline.html", offline.single_file, name="offline-file"),
    path("shows/<id:show_id>/offline.zip", offline.folder, name="offline-folder"),
    path("shows/<id:show_id>/films/<id:job_id>/hand-in", handing_in.hand_in, name="hand-in"),
    path("handed-in/", handing_in.handed_in, name="handed-in"),
    path("handed-in/<id:entry_id>/file", handing_in.handed_in_file, name="handed-in-file"),
    path("handed-in/<id:entry_id>/withdraw", handing_in.withdraw_hand_in, name="withdraw-hand-in"),
    path("handed-in/<id:entry_id>/put-away", handing_in.put_away, name="put-away"),
    path("shows/<id:show_id>/guests", guests.invite, name="guests"),
    path("shows/<id:show_id>/guests/<number:number>", guests.shut_out, name="shut-out"),
    path("s/<id:address>/ask", guests.ask, name="ask-in"),
    path("s/<id:address>/for/<code:code>/", guests.guest, name="guest"),
    path("s/<id:address>/", public.watch, name="watch"),
    path("s/<id:address>/transcript", public.transcript, name="transcript"),
    path("s/<id:address>/news", public.news, name="release-news"),
    path("s/<id:address>/<number:number>/<name:name>", public.edition_file, name="edition-file"),
]
