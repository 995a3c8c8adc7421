"""The worker process: `python -m ritornel.web.worker`."""

import os
import threading

import django


def main() -> None:
    """Works on jobs until it is stopped."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ritornel.web.config.settings")
    django.setup()
    from ritornel.core.document import decoding
    from ritornel.web.releases.filming import take_up_lost_always
    from ritornel.web.releases.tasks import film, queue
    from ritornel.web.shows.tasks import queue as shelf
    from ritornel.web.takes import tasks  # noqa: F401 - what it works on has to be known to it

    decoding.make_ready()
    threading.Thread(target=take_up_lost_always, args=(film, threading.Event()), daemon=True, name="lost films").start()
    # Two at a time: small pictures are wanted at once, also while an hour of sound is being read.
    shelf.create_consumer(workers=2, worker_type="thread", initial_delay=0.1, backoff=1.1, max_delay=0.2, periodic=False).start()
    queue.create_consumer(workers=1, worker_type="thread", initial_delay=0.1, backoff=1.1, max_delay=0.5, periodic=False).run()


if __name__ == "__main__":
    main()
