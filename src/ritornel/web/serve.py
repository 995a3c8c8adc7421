"""The web server: `python -m ritornel.web.serve`, one process of uvicorn with the limits that keep it answering."""

import argparse
import os
import sys

import uvicorn

HOST, PORT = "127.0.0.1", 8000
KEPT_FREE = 300
"""So many open files are kept for the database, media and everything else that is no connection."""


def most_connections() -> int:
    """The most connections and requests at the same time; further ones get the answer to come back later (503)."""
    from ritornel.web.config.settings import open_files_limit

    return max(open_files_limit() - KEPT_FREE, 100)


def main() -> None:
    """Serves until it is stopped."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ritornel.web.config.settings")
    given = argparse.ArgumentParser(description=__doc__)
    given.add_argument("--host", default=HOST)
    given.add_argument("--port", type=int, default=PORT)
    given.add_argument("--log-level", default="warning")
    asked = given.parse_args()
    # Threads that wait for a row of the database get their turn after this long from one that computes. With Python's
    # own 5 ms, reading 500 rows beside a busy thread takes seconds.
    sys.setswitchinterval(0.0005)
    uvicorn.run(
        "ritornel.web.config.asgi:application",
        host=asked.host,
        port=asked.port,
        log_level=asked.log_level,
        timeout_graceful_shutdown=3,
        h11_max_incomplete_event_size=65_536,
        limit_concurrency=most_connections(),
        backlog=1024,
    )


if __name__ == "__main__":
    main()
