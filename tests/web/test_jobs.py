"""Leases of jobs, and files that are derived once."""

import multiprocessing
import os
import threading
import time
from pathlib import Path
from typing import Any
from unittest import mock

from django.db import OperationalError

from ritornel.core.errors import BadMedia, Cancelled
from ritornel.web.jobs import derived_files, leases
from ritornel.web.jobs.derived_files import ask_once, derived_path, failure_of, is_being_made, make_once
from ritornel.web.jobs.lease_holder import Holder, LeaseLost
from ritornel.web.jobs.leases import LEASE_S, is_alive, new_token
from ritornel.web.jobs.resuming import requeue_waiting, resume_lost
from ritornel.web.releases.models import FilmJob
from tests.web.base import WebTest, held


class LeaseTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.job = FilmJob.objects.create(show=self.row, person=self.ines, document=b"")

    def now(self) -> FilmJob:
        return FilmJob.objects.get(pk=self.job.pk)

    def test_one_of_many_gets_a_job_and_only_it_may_renew_or_finish_it(self) -> None:
        tokens = [FilmJob.claim(self.job.pk) for _ in range(3)]
        self.assertEqual(tokens[1:], [None, None])
        token = tokens[0] or ""
        self.assertFalse(FilmJob.renew(self.job.pk, "somebody else", done=9))
        self.assertFalse(FilmJob.finish(self.job.pk, "somebody else", state="ready"))
        self.assertTrue(FilmJob.renew(self.job.pk, token, done=3))
        self.assertEqual((self.now().state, self.now().done), ("running", 3))
        self.assertTrue(FilmJob.finish(self.job.pk, token, state="ready"))
        self.assertFalse(FilmJob.renew(self.job.pk, token, done=4), "what is finished is nobody's any more")

    def test_a_holder_that_is_slow_to_speak_keeps_its_job_however_the_wall_clock_is_set(self) -> None:
        FilmJob.claim(self.job.pk)
        start = leases.now_s()
        with mock.patch("django.utils.timezone.now", side_effect=AssertionError("the wall clock decides nothing")):
            with mock.patch("ritornel.web.jobs.job.now_s", return_value=start + LEASE_S - 2):
                self.assertFalse(self.now().lost)
                resume_lost(FilmJob, self.fail, "")
            with mock.patch("ritornel.web.jobs.job.now_s", return_value=start + LEASE_S + 2):
                self.assertTrue(self.now().lost)

    def test_a_holder_whose_process_is_gone_is_found_at_once(self) -> None:
        ended = multiprocessing.get_context("fork").Process(target=time.sleep, args=(0,))
        ended.start()
        ended.join()
        processes = new_token().split(".")[0]
        self.assertTrue(is_alive(new_token()))
        self.assertFalse(is_alive(f"{processes}.{ended.pid}.abc"))
        self.assertTrue(is_alive(f"1.{ended.pid}.abc"), "of other namespaces nothing is known")
        FilmJob.objects.update(state="running", **{**held(), "holder": f"{processes}.{ended.pid}.abc"})
        self.assertTrue(self.now().lost)

    def test_another_start_of_the_machine_ends_all_leases(self) -> None:
        FilmJob.claim(self.job.pk)
        with mock.patch("ritornel.web.jobs.job.boot_id", return_value="another"):
            self.assertTrue(self.now().lost)

    def test_who_lost_a_job_learns_it_and_changes_nothing_more(self) -> None:
        first = FilmJob.claim(self.job.pk) or ""
        FilmJob.objects.update(leased_until_s=leases.now_s() - 1)
        asked: list[str] = []
        resume_lost(FilmJob, asked.append, "")
        self.assertEqual(asked, [self.job.pk])
        second = FilmJob.claim(self.job.pk) or ""
        with self.assertRaises(LeaseLost):
            Holder(FilmJob, self.job.pk, first).report(5, 10)
        self.assertFalse(Holder(FilmJob, self.job.pk, first).finish(state="failed"))
        FilmJob.objects.update(cancel_wanted=True)
        with self.assertRaises(Cancelled):
            Holder(FilmJob, self.job.pk, second).report(5, 10)

    def test_a_lease_is_renewed_while_nothing_is_reported_and_a_busy_database_does_not_end_that(self) -> None:
        renewed = threading.Event()
        answers: list[Any] = [OperationalError("database is locked"), True, False]

        def renew(*_: Any, **__: Any) -> Any:
            answer = answers.pop(0)
            if isinstance(answer, Exception):
                raise answer
            if not answer:
                renewed.set()
            return answer

        lost = threading.Event()
        often = mock.patch("ritornel.web.jobs.lease_holder.RENEW_S", 0.01)
        with (
            often,
            mock.patch.object(FilmJob, "renew", side_effect=renew),
            Holder(FilmJob, self.job.pk, "token", on_lost=lost.set),
        ):
            self.assertTrue(renewed.wait(10))
            self.assertTrue(lost.wait(10))

    def test_what_waits_and_is_in_no_queue_is_queued_again(self) -> None:
        asked: list[str] = []

        class Task:
            task_class = type("film", (), {})

            def __call__(self, job_id: str) -> None:
                asked.append(job_id)

        queue = mock.Mock()
        queue.pending.return_value = []
        requeue_waiting(FilmJob, queue, Task())
        entry = mock.Mock(args=(self.job.pk,))
        entry.name = "film"
        queue.pending.return_value = [entry]
        requeue_waiting(FilmJob, queue, Task())
        self.assertEqual(asked, [self.job.pk])


def _hold(target: str, var: str, ready: Any, over: Any) -> None:
    """In a process of its own: makes a derived file, and is killed in the middle."""
    from django.test import override_settings

    def write(path: Path) -> None:
        path.write_bytes(b"half of it")
        ready.set()
        over.wait()

    with override_settings(VAR=Path(var)):
        make_once(Path(target), write)


class DerivedTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.target = derived_path("thumbnails", "ab" * 32, ".webp")

    def test_a_file_is_made_once_however_many_make_it(self) -> None:
        made: list[int] = []
        gate = threading.Barrier(6)

        def write(path: Path) -> None:
            made.append(1)
            path.write_bytes(b"whole")

        def work() -> None:
            gate.wait()
            make_once(self.target, write)

        threads = [threading.Thread(target=work) for _ in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual((made, self.target.read_bytes()), ([1], b"whole"))

    def test_it_is_asked_for_once_until_somebody_begins(self) -> None:
        asked: list[int] = []
        for _ in range(40):
            ask_once(self.target, lambda: asked.append(1))
        self.assertEqual(len(asked), 1)
        derived_files.forget_queue()
        ask_once(self.target, lambda: asked.append(1))
        self.assertEqual(len(asked), 2, "a worker that starts has another queue")

    def test_while_it_is_made_nobody_asks_again_and_a_second_maker_steps_back(self) -> None:
        def write(path: Path) -> None:
            self.assertTrue(is_being_made(self.target))
            ask_once(self.target, self.fail)
            self.assertFalse(make_once(self.target, self.fail, wait=False))
            path.write_bytes(b"whole")

        self.assertTrue(make_once(self.target, write))
        self.assertFalse(is_being_made(self.target))

    def test_a_maker_that_is_killed_leaves_nothing_that_is_taken_for_whole_and_the_next_goes_on_at_once(self) -> None:
        spawn = multiprocessing.get_context("fork")
        ready, over = spawn.Event(), spawn.Event()
        killed = spawn.Process(target=_hold, args=(str(self.target), str(self.var), ready, over))
        killed.start()
        self.assertTrue(ready.wait(20))
        self.assertTrue(is_being_made(self.target))
        killed.kill()
        killed.join()
        self.assertFalse(self.target.exists())
        self.assertTrue(make_once(self.target, lambda path: path.write_bytes(b"whole"), wait=False))
        self.assertEqual(self.target.read_bytes(), b"whole")

    def test_what_cannot_be_made_says_why_and_is_not_tried_at_every_look(self) -> None:
        def write(path: Path) -> None:
            path.write_bytes(b"half")
            raise BadMedia("There is no picture in it.")

        with self.assertLogs("ritornel.web.jobs.derived_files"):
            self.assertFalse(make_once(self.target, write))
        self.assertEqual(failure_of(self.target), "There is no picture in it.")
        ask_once(self.target, self.fail)
        self.assertEqual(list(self.target.parent.iterdir()), [])
        with mock.patch(
            "ritornel.web.jobs.derived_files.time.time", return_value=time.time() + derived_files.FAILED_S + 1
        ):
            self.assertIsNone(failure_of(self.target))
            self.assertTrue(make_once(self.target, lambda path: path.write_bytes(b"whole")))

    def test_its_address_changes_with_the_renderer(self) -> None:
        with mock.patch("ritornel.web.jobs.derived_files.RENDERER", 99):
            self.assertNotEqual(derived_path("thumbnails", "ab" * 32, ".webp"), self.target)

    def test_a_lighter_copy_that_does_not_hold_all_its_pictures_is_not_kept(self) -> None:
        from ritornel.core.render import lighter_copies
        from tests.footage import footage

        source = Path(self.var) / "clip.mp4"
        source.write_bytes(footage(12, codec="mpeg4"))
        whole = lighter_copies.write_lighter
        copy = Path(self.var) / "copy.mp4"
        with (
            mock.patch.object(lighter_copies, "write_lighter", side_effect=lambda *paths: whole(*paths) + 1),
            self.assertRaisesMessage(BadMedia, "instead of 13"),
        ):
            lighter_copies.write_checked_lighter(source, copy)
        lighter_copies.write_checked_lighter(source, copy)
        self.assertGreater(os.path.getsize(copy), 100)
