from django.urls import path

from ritornel.web.takes import views

urlpatterns = [
    path("rehearse", views.rehearse, name="rehearse"),
    path("takes", views.keep, name="takes"),
    path("takes/<int:number>/use", views.use, name="use-take"),
    path("takes/<int:number>/drawings.zip", views.drawings, name="take-drawings"),
    path("takes/<int:number>/remove", views.remove, name="remove-take"),
]
