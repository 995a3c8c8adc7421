"""Making films in the worker."""

import contextlib
import os
import shutil
import subprocess
import sys
import tempfile
import threading
import time
import zipfile
from collections.abc import Callable
from fractions import Fraction
from pathlib import Path
from typing import cast

from django.conf import settings
from django.core.files.storage import storages
from django.db import OperationalError, close_old_connections, connection
from django.utils import timezone

from ritornel.core.document.decoding import from_json
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import Cancelled, RitornelError
from ritornel.core.render.animated import write_animated
from ritornel.core.render.crew import Scene
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import Progress
from ritornel.core.render.pages import Kind, write_pdf
from ritornel.core.render.parted import write_parted
from ritornel.core.render.stills import write_stills
from ritornel.core.schedule.performance import perform
from ritornel.web.releases.models import LOST_WORDS, MOST_RESUMED, FilmJob
from ritornel.web.shows.services import media_path

TELL_EVERY_S = 0.25
LOOK_EVERY_S = 2.0
State = FilmJob.State


def film_path(job: FilmJob) -> Path:
    """Where the job's film lies once it is ready."""
    path = Path(storages["films"].path(job.file_name))
    path.parent.mkdir(parents=True, exist_ok=True)
    return path


def parts_path(job: FilmJob) -> Path:
    """Where finished segments of the job's film lie until it is whole."""
    return film_path(job).with_name(f".{job.id}.parts")


class _Watch:
    """Tells the job's row how far it is, and asks it whether to stop, four times a second at most."""

    def __init__(self, job_id: str) -> None:
        self.job_id = job_id
        self.told_at = 0.0

    def __call__(self, progress: Progress) -> None:
        now = time.monotonic()
        if now - self.told_at < TELL_EVERY_S and progress.done < progress.total:
            return
        self.told_at = now
        mine = FilmJob.objects.filter(pk=self.job_id)
        mine.update(done=progress.done, total=progress.total, slide=progress.slide, heard_at=timezone.now())
        if mine.values_list("cancel_wanted", flat=True).first() is not False:
            raise Cancelled("The film was cancelled.")


def _say_alive(job_id: str, over: threading.Event) -> None:
    """Once a second, also while sound is decoded or a film closed, when no frame is reported."""
    while not over.wait(1.0):
        # A database that is busy for once must not silence the job for good; the next second says it.
        with contextlib.suppress(OperationalError):
            FilmJob.objects.filter(pk=job_id).update(heard_at=timezone.now())
    connection.close()


def begun(job_id: str) -> bool:
    """Takes a waiting job on; False where it is not wanted any more."""
    mine = FilmJob.objects.filter(pk=job_id)
    now = timezone.now()
    if mine.filter(state=State.WAITING, cancel_wanted=False).update(state=State.RUNNING, started_at=now, heard_at=now):
        return True
    mine.filter(state=State.WAITING).update(state=State.CANCELLED)
    return False


def _write(job: FilmJob, show: ShowValue, path: Path, watch: "_Watch") -> None:
    """Writes what was asked for."""
    performance = perform(show)
    order = FilmOrder(job.width_px, job.height_px, Fraction(job.rate), job.constant_rate)
    if job.kind == "pdf":
        write_pdf(performance, path, cast(Kind, job.style), media_path, watch)
    elif job.kind == "webp":
        write_animated(performance, path, order, media_path, watch)
    elif job.kind == "zip":
        with tempfile.TemporaryDirectory(prefix="ritornel-") as folder:
            stills = write_stills(performance, Path(folder), job.width_px, job.height_px, media_path, watch)
            made = Path(folder) / "stills.zip"
            with zipfile.ZipFile(made, "w", zipfile.ZIP_STORED) as archive:
                for still in stills:
                    archive.write(still, still.name)
            shutil.move(made, path)
    else:
        media = {asset.sha256: str(media_path(asset.sha256)) for asset in show.assets}
        write_parted(Scene(show, order, media), path, parts_path(job), watch, settings.FILM_PROCESSES)


def make_film(job_id: str) -> None:
    """Makes the film of a job that was taken on; whatever happens, the job's row says so."""
    mine = FilmJob.objects.filter(pk=job_id)
    job = mine.get()
    over = threading.Event()
    alive = threading.Thread(target=_say_alive, args=(job_id, over), daemon=True)
    alive.start()
    try:
        show = from_json(bytes(job.document), ShowValue, "The film's show")
        path = film_path(job)
        _write(job, show, path, _Watch(job_id))
        mine.update(state=State.READY, size_bytes=path.stat().st_size)
    except Cancelled:
        mine.update(state=State.CANCELLED)
    except RitornelError as error:
        mine.update(state=State.FAILED, message=str(error)[:400])
    except Exception as error:
        mine.update(state=State.FAILED, message=f"The film could not be made ({type(error).__name__}).")
        raise
    finally:
        over.set()
        alive.join()


def film_apart(job_id: str) -> None:
    """Makes the film in a process of its own, which a clip that brings its decoder down takes with it, and not the worker."""
    close_old_connections()
    if not begun(job_id):
        return
    ended = subprocess.run([sys.executable, "-m", "ritornel.web.releases.filmmaker", job_id, str(os.getpid())])
    if ended.returncode:
        words = "The film could not be made: its maker stopped in the middle, perhaps for want of memory."
        FilmJob.objects.filter(pk=job_id, state=State.RUNNING).update(state=State.FAILED, message=words)


def take_up_lost(enqueue: Callable[[str], object]) -> None:
    """Takes up again what a worker was making that is gone; what stopped a worker three times is left, and says that it was interrupted."""
    for job in FilmJob.objects.filter(state=State.RUNNING).defer("document"):
        if not job.lost:
            continue
        film_path(job).with_name(f".{job.id}.unfinished.{job.kind}").unlink(missing_ok=True)
        mine = FilmJob.objects.filter(pk=job.pk, state=State.RUNNING, heard_at=job.heard_at)
        if job.resumed >= MOST_RESUMED:
            mine.update(state=State.INTERRUPTED, message=LOST_WORDS)
        elif mine.update(state=State.WAITING, resumed=job.resumed + 1):
            enqueue(job.pk)


def take_up_lost_always(enqueue: Callable[[str], object], over: threading.Event) -> None:
    """Looks for such work again and again, in a thread of its own."""
    while True:
        # A database that is busy for once must not end this; the next look finds the same.
        with contextlib.suppress(OperationalError):
            take_up_lost(enqueue)
        if over.wait(LOOK_EVERY_S):
            connection.close()
            return
