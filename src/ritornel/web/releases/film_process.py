"""The process that makes one film: `python -m ritornel.web.releases.film_process JOB TOKEN WORKER`, started by the
worker and ended with it.
"""

import os
import sys
import threading
import time

import django


def _end_with(worker: int) -> None:
    """Ends this process when the worker that started it is gone."""
    while os.getppid() == worker:
        time.sleep(0.2)
    os._exit(1)


def main(job_id: str, token: str, worker: int) -> None:
    """Makes the film of a job."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ritornel.web.config.settings")
    django.setup()
    from ritornel.web.releases.filming import make_film

    threading.Thread(target=_end_with, args=(worker,), daemon=True).start()
    make_film(job_id, token)


if __name__ == "__main__":
    main(sys.argv[1], sys.argv[2], int(sys.argv[3]))
