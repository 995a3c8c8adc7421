"""Names of saved files, and data addresses."""

import base64
import re


def file_title(title: str) -> str:
    """A title as a file name: `The Orlmere clock` -> `the-orlmere-clock`."""
    return re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-") or "show"


def data_url(media_type: str, data: bytes) -> str:
    """The bytes as a data address (RFC 2397)."""
    return f"data:{media_type};base64,{base64.b64encode(data).decode()}"
