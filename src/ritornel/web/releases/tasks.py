"""The queue between server and worker: Huey on an SQLite file of its own, beside the database."""

from ritornel.web.jobs.queue import Queue
from ritornel.web.releases.filming import film_apart

queue = Queue("ritornel", "jobs.sqlite3", fsync=True)


@queue.task()  # type: ignore[untyped-decorator]
def film(job_id: str) -> None:
    """Makes a film."""
    film_apart(job_id)
