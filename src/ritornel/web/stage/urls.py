from django.urls import path

from ritornel.web.stage import following, lectern, views

urlpatterns = [
    path("shows/<str:show_id>/play", views.play, name="play"),
    path("shows/<str:show_id>/performance.json", views.performance, name="performance"),
    path("shows/<str:show_id>/lectern", lectern.lectern, name="lectern"),
    path("shows/<str:show_id>/house", lectern.house, name="house"),
    path("shows/<str:show_id>/run", lectern.begin_run, name="run-begin"),
    path("shows/<str:show_id>/run.json", lectern.run_state, name="run-state"),
    path("shows/<str:show_id>/run/end", lectern.end_run, name="run-end"),
    path("shows/<str:show_id>/run/events", following.run_events, name="run-events"),
    path("shows/<str:show_id>/run/say", following.run_say, name="run-say"),
    path("house/<str:code>/", following.house_at, name="house-at"),
    path("house/<str:code>/performance.json", following.house_performance, name="house-performance"),
    path("house/<str:code>/events", following.house_events, name="house-events"),
    path("house/<str:code>/media/<str:asset_id>/<int:rate_pct>", following.house_media, name="house-media"),
    path("remote/<str:code>/", following.remote, name="remote"),
    path("remote/<str:code>/events", following.remote_events, name="remote-events"),
    path("remote/<str:code>/press", following.remote_press, name="remote-press"),
]
