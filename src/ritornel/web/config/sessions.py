"""Sessions that let people sign in while the disk is full."""

from typing import Any

from django.contrib.sessions.backends.base import UpdateError
from django.contrib.sessions.backends.db import SessionStore as DatabaseSessions
from django.contrib.sessions.serializers import JSONSerializer
from django.core import signing
from django.db import DatabaseError

from ritornel.web.config.full_disk import is_full_disk


class SessionStore(DatabaseSessions):
    """Sessions in the database.

    While the database cannot be written, a session lives signed in the browser's cookie for a few hours.
    """

    MARK = "~"
    LASTS_S = 8 * 3600

    def load(self) -> dict[str, Any]:
        """The session's data; nothing for a forged or expired cookie."""
        key = self.session_key or ""
        if not key.startswith(self.MARK):
            return super().load()
        try:
            found: dict[str, Any] = signing.loads(
                key[1:], salt="ritornel session", serializer=JSONSerializer, max_age=self.LASTS_S
            )
        except signing.BadSignature:
            self._session_key = None
            return {}
        return found

    def exists(self, session_key: str) -> bool:
        """Whether this session exists."""
        return False if session_key.startswith(self.MARK) else super().exists(session_key)

    def save(self, must_create: bool = False) -> None:
        """Saves the session where there is room for it."""
        if (self.session_key or "").startswith(self.MARK):
            must_create, self._session_key = True, self._get_new_session_key()  # type: ignore[attr-defined]
        try:
            super().save(must_create)
        except (DatabaseError, UpdateError) as error:
            if not is_full_disk(error):
                raise
            data = self._get_session(no_load=must_create)  # type: ignore[attr-defined]
            self._session_key = self.MARK + signing.dumps(data, salt="ritornel session", serializer=JSONSerializer)

    def delete(self, session_key: str | None = None) -> None:
        """Deletes a session."""
        key = session_key or self.session_key or ""
        if key.startswith(self.MARK):
            return
        try:
            super().delete(session_key)
        except DatabaseError as error:
            if not is_full_disk(error):
                raise
