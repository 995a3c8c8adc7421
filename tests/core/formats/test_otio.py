import itertools
from typing import Any
from unittest import TestCase

import opentimelineio as otio

from ritornel.core.formats.otio import write_otio
from ritornel.core.schedule.performance import perform
from ritornel.demo.narrated import told
from ritornel.demo.orlmere import orlmere
from ritornel.demo.pendulum import pendulum
from tests.examples import example_a, with_music


class OtioTest(TestCase):
    """What is written is read by the format's own library."""

    def read(self, show: Any) -> Any:
        return otio.adapters.read_from_string(write_otio(perform(show)), "otio_json")

    def ms(self, time: Any) -> float:
        return float(time.to_seconds() * 1000)

    def test_slides_and_cues_are_where_the_schedule_has_them(self) -> None:
        timeline, schedule = self.read(orlmere()), perform(orlmere()).schedule
        slides = timeline.tracks[0]
        self.assertEqual((timeline.name, self.ms(timeline.duration())), ("The Orlmere clock", schedule.length_ms))
        starts = [self.ms(slides.range_of_child(clip).start_time) for clip in slides]
        self.assertEqual(starts, list(schedule.starts_ms))
        cues = [self.ms(marker.marked_range.start_time) for marker in slides[1].markers]
        self.assertEqual(cues, [beat.start_ms for beat in schedule.slides[1].beats[1:]])

    def test_music_that_crossfades_is_on_two_tracks_in_turn(self) -> None:
        timeline = self.read(with_music(example_a(), crossfade_ms=500))
        music = [track for track in timeline.tracks if track.name.startswith("Music")]
        starts = sorted(
            self.ms(track.range_of_child(clip).start_time)
            for track in music
            for clip in track
            if isinstance(clip, otio.schema.Clip)
        )
        self.assertEqual((len(music), starts), (2, [0, 11_500, 23_000]))

    def test_voices_and_clips_name_their_media_and_what_is_heard_of_them(self) -> None:
        timeline, performance = self.read(told()), perform(told())
        (voices,) = (track for track in timeline.tracks if track.name == "Voices")
        clips = [child for child in voices if isinstance(child, otio.schema.Clip)]
        self.assertEqual(
            [self.ms(voices.range_of_child(clip).start_time) for clip in clips],
            [voice.start_ms for voice in performance.voices],
        )
        asset = performance.assets[performance.voices[0].asset_id]
        self.assertEqual(clips[0].media_reference.target_url, f"media/{asset.sha256}.ogg")
        lesson = self.read(pendulum())
        (heard,) = (track for track in lesson.tracks if track.name == "Clips")
        clip = next(child for child in heard if isinstance(child, otio.schema.Clip))
        self.assertEqual(self.ms(clip.source_range.start_time), perform(pendulum()).clips[0].in_ms)

    def test_nothing_on_a_track_overlaps(self) -> None:
        for show in (orlmere(), told(), pendulum()):
            timeline = self.read(show)
            for track in timeline.tracks:
                ranges = [track.range_of_child(child) for child in track]
                for before, after in itertools.pairwise(ranges):
                    self.assertEqual(self.ms(before.end_time_exclusive()), self.ms(after.start_time))
