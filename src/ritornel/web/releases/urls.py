from django.urls import path

from ritornel.web.releases import public, views

urlpatterns = [
    path("shows/<str:show_id>/release", views.release, name="release"),
    path("shows/<str:show_id>/editions", views.make_edition, name="editions"),
    path("shows/<str:show_id>/checks/aside", views.set_aside, name="set-aside"),
    path("shows/<str:show_id>/checks.json", views.checks, name="checks"),
    path("shows/<str:show_id>/release/settings", views.change_settings, name="release-settings"),
    path("shows/<str:show_id>/films", views.films, name="films"),
    path("shows/<str:show_id>/films/<str:job_id>/cancel", views.cancel_film, name="cancel-film"),
    path("shows/<str:show_id>/films/<str:job_id>/again", views.film_again, name="film-again"),
    path("shows/<str:show_id>/films/<str:job_id>/remove", views.remove_film, name="remove-film"),
    path("shows/<str:show_id>/films/<str:job_id>/file", views.film_file, name="film-file"),
    path("s/<str:address>/", public.watch, name="watch"),
    path("s/<str:address>/<int:number>/performance.json", public.performance, name="edition-performance"),
    path("s/<str:address>/<int:number>/calm.json", public.calm, name="edition-calm"),
    path("s/<str:address>/<int:number>/<str:name>", public.media, name="edition-media"),
]
