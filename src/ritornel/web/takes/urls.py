from django.urls import path

from ritornel.web.takes import clips, comparing, recording, selecting, views

urlpatterns = [
    path("rehearse", views.rehearse, name="rehearse"),
    path("takes", views.keep, name="takes"),
    path("takes/plan.json", views.plan, name="plan"),
    path("takes/follow-none", views.follow_none, name="follow-none"),
    path("takes/compare.json", comparing.compare, name="compare-takes"),
    path("takes/timing", comparing.take_timing, name="take-timing"),
    path("takes/<number:number>/use", views.use, name="use-take"),
    path("takes/<number:number>/drawings.zip", views.drawings, name="take-drawings"),
    path("takes/<number:number>/remove", views.remove, name="remove-take"),
    path("record", selecting.record, name="record"),
    path("record.json", selecting.state, name="record-state"),
    path("record/show.json", selecting.section_show, name="record-show"),
    path("record/picked.json", selecting.as_picked, name="record-picked"),
    path("record/camera.json", selecting.camera_places, name="record-camera"),
    path("record/media/<id:asset_id>", selecting.recorded_media, name="recorded-media"),
    path("record/pick", selecting.pick, name="record-pick"),
    path("record/keep", selecting.keep, name="record-keep"),
    path("record/clip", clips.begin_clip, name="clip-begin"),
    path("record/<id:recording_id>/clip", clips.clip, name="clip"),
    path("record/<id:recording_id>/place", clips.place, name="clip-place"),
    path("record/begin", recording.begin, name="record-begin"),
    path("record/<id:recording_id>/more", recording.more, name="record-more"),
    path("record/<id:recording_id>/peaks", recording.peaks, name="record-peaks"),
    path("record/<id:recording_id>/remove", recording.remove, name="record-remove"),
]
