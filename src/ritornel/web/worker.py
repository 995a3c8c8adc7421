"""The worker process: `python -m ritornel.web.worker`."""

import contextlib
import os
import sqlite3
import sys
import threading
import time

import django

AGAIN_S = 5.0


def main() -> None:
    """Works on jobs until it is stopped. On a full disk it waits for room and goes on."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ritornel.web.config.settings")
    django.setup()
    from django.conf import settings
    from django.db import DatabaseError

    from ritornel.web.config.disk_reserve import keep_open
    from ritornel.web.config.full_disk import is_full_disk

    while True:
        try:
            with contextlib.closing(keep_open(settings.DATABASE_FILE)):
                work()
        except (OSError, DatabaseError, sqlite3.Error) as error:
            if not is_full_disk(error):
                raise
            print("The worker waits: the disk is full. It goes on when there is room.", file=sys.stderr, flush=True)
            time.sleep(AGAIN_S)
        else:
            return


def work() -> None:
    """Starts on the queues, and returns only when it is stopped."""
    from ritornel.core.document import decoding
    from ritornel.web.exchange.imports import LOST_WORDS as LOST_READING
    from ritornel.web.exchange.tasks import read_file
    from ritornel.web.jobs.derived_files import forget_queue
    from ritornel.web.jobs.queue import small_jobs as shelf
    from ritornel.web.jobs.resuming import look_always, requeue_waiting, resume_lost
    from ritornel.web.operations.tasks import tidy_daily
    from ritornel.web.releases.filming import clear_unfinished
    from ritornel.web.releases.models import LOST_WORDS, FilmJob
    from ritornel.web.releases.tasks import film, queue
    from ritornel.web.shows.services import Reading
    from ritornel.web.takes import tasks  # noqa: F401 - what it works on has to be known to it

    decoding.make_ready()
    forget_queue()

    def look() -> None:
        resume_lost(FilmJob, film, LOST_WORDS, clear_unfinished)
        resume_lost(Reading, read_file, LOST_READING)
        requeue_waiting(FilmJob, queue, film)
        requeue_waiting(Reading, shelf, read_file)
        tidy_daily()

    over = threading.Event()
    threading.Thread(target=look_always, args=(look, over), daemon=True, name="lost jobs").start()
    # Two at a time: thumbnails are wanted at once, also while an hour of sound is being read.
    small = shelf.create_consumer(
        workers=2, worker_type="thread", initial_delay=0.1, backoff=1.1, max_delay=0.2, periodic=False
    )
    small.start()
    try:
        queue.create_consumer(
            workers=1, worker_type="thread", initial_delay=0.1, backoff=1.1, max_delay=0.5, periodic=False
        ).run()
    finally:
        over.set()
        small.stop()


if __name__ == "__main__":
    main()
