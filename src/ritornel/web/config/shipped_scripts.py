"""Scripts as browsers get them: without comments and indentation, which only developers read.

What a comment or a type costs is then nothing: half of some modules is JSDoc. Where Django debugs, scripts stay as they
are written.
"""

from functools import lru_cache

import rjsmin
from django.conf import settings


@lru_cache(maxsize=512)
def _shortened(source: bytes) -> bytes:
    return bytes(rjsmin.jsmin(source, keep_bang_comments=True))


def shipped_script(source: bytes) -> bytes:
    """The script with the same meaning, in fewer bytes; a comment that begins with `/*!` stays, as licences want."""
    return source if settings.DEBUG else _shortened(source)
