from django.urls import path

from ritornel.web.operations import faults

urlpatterns = [path("faults", faults.note_fault, name="faults")]
