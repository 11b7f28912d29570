"""Sessions in the database, read by one statement that is not worked out anew for every request."""

from __future__ import annotations

from django.contrib.sessions.backends import db
from django.contrib.sessions.models import Session
from django.db import connection
from django.utils import timezone

_SQL = "SELECT session_data, expire_date FROM django_session WHERE session_key = %s AND expire_date > %s"


class SessionStore(db.SessionStore):
    """Django's own, but for how a session is found."""

    @classmethod
    def get_model_class(cls) -> type[Session]:
        """The table is Django's."""
        return Session

    def _get_session_from_db(self) -> Session | None:
        if self.session_key is None:
            return None
        now = connection.ops.adapt_datetimefield_value(timezone.now())
        with connection.cursor() as cursor:
            cursor.execute(_SQL, [self.session_key, now])
            row = cursor.fetchone()
        if row is None:
            self._session_key = None
            return None
        return Session(self.session_key, *row)
