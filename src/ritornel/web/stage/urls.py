from django.urls import path

from ritornel.web.stage import views

urlpatterns = [
    path("play", views.play, name="play"),
    path("performance.json", views.performance, name="performance"),
]
