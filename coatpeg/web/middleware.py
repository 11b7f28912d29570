"""Refusing what is too large before it is read, and answering when the database is away."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.db import InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse

from coatpeg.core.errors import TooLarge
from coatpeg.web.problems import problem, response_of

Answer = Callable[[HttpRequest], HttpResponse]
ENVELOPE = 64 * 1024
"""Bytes of a multipart body beside the file itself: boundaries, headers, the title."""
FORMS = ("/files", "/row-files", "/cover/picture")
"""What paths of forms with a file end in."""


def refuse_large_bodies(get_response: Answer) -> Answer:
    """Refuse by the announced length, before anything is read."""

    def middleware(request: HttpRequest) -> HttpResponse:
        try:
            length = int(request.META.get("CONTENT_LENGTH") or 0)
        except ValueError:
            length = 0
        part = request.method == "PATCH" and request.path.startswith("/api/uploads/")
        upload = part or request.path.endswith(FORMS)
        most = settings.UPLOAD_LIMIT if part else min(settings.FORM_LIMIT, settings.UPLOAD_LIMIT)
        limit = most + ENVELOPE if upload else settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        if length > limit:
            megabytes = most / 1024 / 1024
            what = (
                f"The file is larger than {megabytes:.0f} MB, the most this school takes."
                if upload
                else "That is too much text for one save."
            )
            response = response_of(
                TooLarge(what, where="file" if upload else "text", fix="Make it smaller, or put a link to it.")
            )
            response["Connection"] = "close"
            return response
        return get_response(request)

    return middleware


def answer_when_database_is_away(get_response: Answer) -> Answer:
    """A lost database is a 503 that asks to try again, not a crash."""

    def middleware(request: HttpRequest) -> HttpResponse:
        return get_response(request)

    def process_exception(request: HttpRequest, error: Exception) -> HttpResponse | None:
        if isinstance(error, (OperationalError, InterfaceError)):
            return database_away()
        return None

    middleware.process_exception = process_exception  # type: ignore[attr-defined]  # how Django finds it
    return middleware


def database_away() -> HttpResponse:
    """The answer while the database is away; the broken connection is let go."""
    connection.close()
    response = problem(
        503,
        "away",
        "Coat Peg cannot reach its database just now.",
        fix="It tries again by itself; nothing you typed is lost.",
    )
    response["Retry-After"] = "3"
    return response
