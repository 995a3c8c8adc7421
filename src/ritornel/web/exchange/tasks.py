"""The worker's tasks for files that are not shows yet."""

from ritornel.web.exchange.import_jobs import read
from ritornel.web.jobs.queue import small_jobs
from ritornel.web.library.services import begin_work


@small_jobs.task()  # type: ignore[untyped-decorator]
def read_file(reading_id: str) -> None:
    """Reads an uploaded file, to make a show from it."""
    for asset in read(reading_id):
        begin_work(asset)
