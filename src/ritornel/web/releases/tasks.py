"""The queue between server and worker: Huey on an SQLite file of its own, beside the database."""

from django.conf import settings
from huey import SqliteHuey

from ritornel.web.releases.filming import film_apart

queue = SqliteHuey("ritornel", filename=str(settings.VAR / "jobs.sqlite3"), fsync=True)


@queue.task()  # type: ignore[untyped-decorator]
def film(job_id: str) -> None:
    """Makes a film."""
    film_apart(job_id)
