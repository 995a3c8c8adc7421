"""Names of files that are saved."""

import re


def file_title(title: str) -> str:
    """A title as a file name: `The Orlmere clock` -> `the-orlmere-clock`."""
    return re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-") or "show"
