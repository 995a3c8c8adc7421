"""What the worker does with files that became no show yet."""

from ritornel.web.exchange.import_jobs import read
from ritornel.web.jobs.queue import small_jobs
from ritornel.web.library.services import begin_work


@small_jobs.task()  # type: ignore[untyped-decorator]
def read_file(reading_id: str) -> None:
    """Reads a file that came, to make a show of it."""
    for asset in read(reading_id):
        begin_work(asset)
