from django.urls import path

from ritornel.web.takes import comparing, views

urlpatterns = [
    path("rehearse", views.rehearse, name="rehearse"),
    path("takes", views.keep, name="takes"),
    path("takes/plan.json", views.plan, name="plan"),
    path("takes/compare.json", comparing.compare, name="compare-takes"),
    path("takes/timing", comparing.take_timing, name="take-timing"),
    path("takes/<int:number>/use", views.use, name="use-take"),
    path("takes/<int:number>/drawings.zip", views.drawings, name="take-drawings"),
    path("takes/<int:number>/remove", views.remove, name="remove-take"),
]
