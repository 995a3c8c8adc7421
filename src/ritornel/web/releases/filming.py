"""Making films in the worker."""

import os
import shutil
import subprocess
import sys
import tempfile
import zipfile
from collections.abc import Callable
from fractions import Fraction
from pathlib import Path
from typing import cast

from django.conf import settings
from django.core.files.storage import storages
from django.db import close_old_connections
from django.utils import timezone

from ritornel.core.document.decoding import from_json
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import Cancelled, RitornelError
from ritornel.core.render.animated import write_animated
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.kept_segments import SegmentStore
from ritornel.core.render.pages import Kind, write_pdf
from ritornel.core.render.process_pool import FilmSource
from ritornel.core.render.segmented_film import write_segmented_film
from ritornel.core.render.stills import write_stills
from ritornel.core.render.workload import Progress
from ritornel.core.schedule.performance import perform
from ritornel.web.jobs.lease_holder import Holder
from ritornel.web.releases.models import FilmJob
from ritornel.web.shows.services import media_path

LOST_EXIT = 3
"""How a process ends that lost its job to another one."""
State = FilmJob.State


def film_path(job: FilmJob) -> Path:
    """The place of the job's film once it is complete."""
    path = Path(storages["films"].path(job.file_name))
    path.parent.mkdir(parents=True, exist_ok=True)
    return path


def parts_path(job: FilmJob) -> Path:
    """The place of finished segments until the film is complete."""
    return film_path(job).with_name(f".{job.id}.parts")


def _write(job: FilmJob, show: ShowValue, path: Path, watch: Callable[[Progress], None]) -> None:
    """Writes the ordered result."""
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
        store = SegmentStore(Path(storages["films"].path("segments")))
        write_segmented_film(
            FilmSource(show, order, media), path, parts_path(job), watch, settings.FILM_PROCESSES, store
        )
        store.trim()


def make_film(job_id: str, token: str) -> None:
    """Makes the film of a job that this process holds with the token of the claiming process; whatever happens, the
    job's row says so.
    """
    job = FilmJob.objects.get(pk=job_id)
    # Whoever has lost the job must not write one byte more of it: what it writes belongs to somebody else.
    with Holder(FilmJob, job_id, token, on_lost=lambda: os._exit(LOST_EXIT)) as holder:
        try:
            show = from_json(bytes(job.document), ShowValue, "The film's show")
            path = film_path(job)

            def watch(progress: Progress) -> None:
                holder.report(progress.done, progress.total, slide=progress.slide, found=progress.before)

            # What is left is judged by how long the work takes, not by how long this process took to come.
            FilmJob.renew(job_id, token, started_at=timezone.now(), found=job.done)
            _write(job, show, path, watch)
            holder.finish(state=State.READY, size_bytes=path.stat().st_size)
        except Cancelled:
            holder.finish(state=State.CANCELLED)
        except RitornelError as error:
            holder.finish(state=State.FAILED, message=str(error)[:400])
        except Exception as error:
            holder.finish(state=State.FAILED, message=f"The film could not be made ({type(error).__name__}).")
            raise


def film_apart(job_id: str) -> None:
    """Makes the film in a process of its own, so that a clip that crashes its decoder does not stop the worker."""
    close_old_connections()
    token = FilmJob.claim(job_id)
    if token is None:
        return
    ended = subprocess.run(
        [sys.executable, "-m", "ritornel.web.releases.film_process", job_id, token, str(os.getpid())]
    )
    if ended.returncode:
        words = "The film could not be made: its maker stopped in the middle, perhaps for want of memory."
        FilmJob.finish(job_id, token, state=State.FAILED, message=words)


def clear_unfinished(job: FilmJob) -> None:
    """Removes the incomplete files of a holder that is gone; finished segments stay and are used."""
    film_path(job).with_name(f".{job.id}.unfinished.{job.kind}").unlink(missing_ok=True)
