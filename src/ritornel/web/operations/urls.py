from django.urls import path

from ritornel.web.operations import error_reports

urlpatterns = [path("faults", error_reports.note_fault, name="faults")]
