from django.urls import path

from ritornel.web.stage import devices, lectern, views

urlpatterns = [
    path("shows/<id:show_id>/play", views.play, name="play"),
    path("shows/<id:show_id>/performance.json", views.performance, name="performance"),
    path("shows/<id:show_id>/lectern", lectern.lectern, name="lectern"),
    path("shows/<id:show_id>/house", lectern.house, name="house"),
    path("shows/<id:show_id>/run", lectern.begin_run, name="run-begin"),
    path("shows/<id:show_id>/run.json", lectern.run_state, name="run-state"),
    path("shows/<id:show_id>/run/end", lectern.end_run, name="run-end"),
    path("shows/<id:show_id>/run/events", devices.run_events, name="run-events"),
    path("shows/<id:show_id>/run/say", devices.run_say, name="run-say"),
    path("house/<code:code>/", devices.house_at, name="house-at"),
    path("house/<code:code>/performance.json", devices.house_performance, name="house-performance"),
    path("house/<code:code>/events", devices.house_events, name="house-events"),
    path("house/<code:code>/media/<id:asset_id>/<number:rate_pct>", devices.house_media, name="house-media"),
    path("remote/<code:code>/", devices.remote, name="remote"),
    path("remote/<code:code>/events", devices.remote_events, name="remote-events"),
    path("remote/<code:code>/press", devices.remote_press, name="remote-press"),
]
