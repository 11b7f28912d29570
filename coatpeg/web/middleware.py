"""Refusing what is too large before it is read, and answering when the database is away."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable

from csp.middleware import CSPMiddleware
from django.conf import settings
from django.db import IntegrityError, InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.middleware.gzip import GZipMiddleware

from coatpeg.core.errors import Busy, TooLarge
from coatpeg.people import cards
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


def hold_to_card(get_response: Answer) -> Answer:
    """Keep sessions begun by a sign-in card to the card's class."""

    def middleware(request: HttpRequest) -> HttpResponse:
        try:
            cards.hold_to_card(request)
        except (OperationalError, InterfaceError):
            return database_away()
        return get_response(request)

    return middleware


FORWARDED = ("HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_PROTO", "HTTP_X_FORWARDED_HOST", "HTTP_FORWARDED")


def take_word_of_proxies(get_response: Answer) -> Answer:
    """Behind a proxy that ends TLS: scheme and address as it says, where it is one of ours; else they are not read.

    So a redirect to https ends, and the throttle of sign-ins counts by the address a person really comes from.
    """

    def middleware(request: HttpRequest) -> HttpResponse:
        said = {name: request.META.pop(name, "") for name in FORWARDED}
        if request.META.get("REMOTE_ADDR") in settings.PROXIES:
            scheme = said["HTTP_X_FORWARDED_PROTO"].rpartition(",")[2].strip()
            if scheme in ("http", "https"):
                request.environ["wsgi.url_scheme"] = scheme  # type: ignore[attr-defined]  # a WSGI request
            coming = [one.strip() for one in said["HTTP_X_FORWARDED_FOR"].split(",") if one.strip()]
            # The last one that is no proxy of ours: what stands before it anybody can have written.
            for one in reversed(coming):
                request.META["REMOTE_ADDR"] = one
                if one not in settings.PROXIES:
                    break
        return get_response(request)

    return middleware


class Policy(CSPMiddleware):
    """What a page may load (``CONTENT_SECURITY_POLICY``); data loads nothing, which is not put together each time."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        """The answer with its policy."""
        if _kind(response) not in JSON:
            done: HttpResponseBase = super().process_response(request, response)
            return done
        response.headers.setdefault("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
        return response


def _kind(response: HttpResponseBase) -> str:
    return response.headers.get("Content-Type", "").partition(";")[0]


class PlainAnswers(GZipMiddleware):
    """Compress what is written for the moment, and leave files as they are: tags and ranges are those of the bytes.

    What the API says in JSON is for this moment and this person: nobody on the way keeps it.
    """

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        """The answer, compressed where it is data or a page."""
        kind = _kind(response)
        if kind in JSON and not response.has_header("Cache-Control"):
            response["Cache-Control"] = "no-store"
        if response.streaming or response.has_header("ETag") or kind not in COMPRESSED:
            return response
        done: HttpResponseBase = super().process_response(request, response)
        return done


JSON = frozenset({"application/json", "application/problem+json"})
COMPRESSED = JSON | {"text/html", "text/csv", "text/calendar"}


def answer_when_database_is_away(get_response: Answer) -> Answer:
    """A lost database is a 503 that asks to try again, not a crash."""

    def middleware(request: HttpRequest) -> HttpResponse:
        return get_response(request)

    def process_exception(request: HttpRequest, error: Exception) -> HttpResponse | None:
        if isinstance(error, OperationalError) or lost_to_others(error):
            return database_refused(request, error)
        if isinstance(error, InterfaceError):
            return database_away()
        return None

    middleware.process_exception = process_exception  # type: ignore[attr-defined]  # how Django finds it
    return middleware


BUSY = frozenset({1205, 1213, 1452})
"""MariaDB's "Lock wait timeout exceeded", "Deadlock found" and "a foreign key constraint fails" (what it hangs on was
taken away in that moment): what was begun is undone and can be tried again."""
MOST_TRIES = 3


def lost_to_others(error: Exception) -> bool:
    """Whether the database refused because somebody else was at the same rows."""
    return isinstance(error, OperationalError | IntegrityError) and bool(error.args) and error.args[0] in BUSY


def database_refused(request: HttpRequest, error: Exception) -> HttpResponse:
    """The answer to an error of the database: somebody was at the same rows, or it is away."""
    if not lost_to_others(error):
        return database_away()
    logging.getLogger("coatpeg").warning("%s %s: %s", request.method, request.path, error.args[-1])
    response = response_of(
        Busy(
            "Somebody else saved the same in this moment.",
            fix="Nothing of yours was written and nothing is lost: try again.",
        )
    )
    response["Retry-After"] = "1"
    request.META[AGAIN] = True
    return response


AGAIN = "coatpeg.again"


def try_again_when_busy(get_response: Answer) -> Answer:
    """Do once more what lost to somebody else's rows: it is undone as a whole. Not what streams its body."""

    def middleware(request: HttpRequest) -> HttpResponse:
        for attempt in range(1, MOST_TRIES + 1):
            request.META.pop(AGAIN, None)
            response = get_response(request)
            whole = hasattr(request, "_body") or not request.META.get("CONTENT_LENGTH")
            if AGAIN not in request.META or not whole or attempt == MOST_TRIES:
                return response
            time.sleep(0.05 * attempt)
        raise AssertionError("not reached")

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
