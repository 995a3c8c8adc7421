"""Work on strangers' files in a process of its own."""

import os
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import SimpleTestCase

from ritornel.core.errors import BadMedia, BadValue
from ritornel.web.jobs.sandbox import Bounds, run_confined
from ritornel.web.library import uploads
from ritornel.web.shows.services import Show
from tests.unruly import doubled, fallen, greedy, refusing, stuck, whose_process
from tests.web.base import WebTest


class ConfinedTest(SimpleTestCase):
    def test_it_answers_from_another_process(self) -> None:
        self.assertEqual(run_confined(doubled, 21, what="a.png"), 42)
        self.assertNotEqual(run_confined(whose_process, what="a.png"), os.getpid())

    def test_what_it_raises_is_raised_here(self) -> None:
        with self.assertRaisesMessage(BadValue, "31 teeth"):
            run_confined(refusing, what="a.png")

    def test_a_file_that_holds_its_reader_up_is_given_up(self) -> None:
        with self.assertRaisesMessage(
            BadMedia, "“slow.mp4” was given up: reading it took longer than 1 s. Nothing was added."
        ):
            run_confined(stuck, what="slow.mp4", bounds=Bounds(wall_s=1))

    def test_a_file_that_wants_too_much_memory_is_given_up(self) -> None:
        with self.assertRaisesMessage(BadMedia, "“large.png” needs more than 0.2 GB of memory"):
            run_confined(greedy, what="large.png", bounds=Bounds(memory_bytes=200_000_000))

    def test_a_file_that_brings_its_reader_down_is_told_and_nothing_else_falls(self) -> None:
        with self.assertRaisesMessage(
            BadMedia, "“evil.mp4” cannot be read: its reader stopped in the middle. Nothing was added."
        ):
            run_confined(fallen, what="evil.mp4")
        self.assertEqual(run_confined(doubled, 2, what="a.png"), 4)


class IntakeTest(WebTest):
    def test_a_file_whose_reader_falls_over_changes_nothing_and_gets_a_sentence(self) -> None:
        before = Show.objects.get(pk="clock").revision
        with mock.patch.object(
            uploads, "run_confined", lambda work, *given, what, bounds: run_confined(fallen, what=what)
        ):
            reply = self.client.post(
                "/shows/clock/shelf", {"file": SimpleUploadedFile("evil.mp4", b"\0\0\0\x18ftypmp42")}
            )
        self.assertEqual(
            (reply.status_code, reply.json()["error"]),
            (400, "“evil.mp4” cannot be read: its reader stopped in the middle. Nothing was added."),
        )
        self.assertEqual(Show.objects.get(pk="clock").revision, before)
