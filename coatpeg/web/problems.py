"""Errors as problem details (RFC 9457): the one place where they become HTTP."""

from __future__ import annotations

from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse

from coatpeg.core.errors import CoatPegError

STATUS = {
    "refused": 403,
    "invalid": 422,
    "too-large": 413,
    "stale": 409,
    "busy": 423,
    "other-version": 412,
    "gone": 404,
}


def problem(status: int, kind: str, what: str, *, where: str = "", fix: str = "", **more: Any) -> HttpResponse:
    """A problem document."""
    document = {"type": f"urn:coatpeg:{kind}", "title": what, "status": status, "where": where, "fix": fix, **more}
    return HttpResponse(orjson.dumps(document), status=status, content_type="application/problem+json")


def response_of(error: CoatPegError) -> HttpResponse:
    """The answer to one of our own errors."""
    return problem(STATUS[error.kind], error.kind, error.what, where=error.where, fix=error.fix, **error.more)


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """The answer to a write without a valid token."""
    return problem(
        403,
        "csrf",
        "This window has lost its connection to your sign-in.",
        fix="Reload the page; what you typed is kept.",
    )


def signed_out() -> HttpResponse:
    """The answer to anything asked without being signed in."""
    return problem(
        401, "signed-out", "You are signed out.", fix="Sign in again; what you typed is kept on this device."
    )


def unreadable(errors: list[dict[str, Any]]) -> HttpResponse:
    """The answer to a request whose shape does not fit, naming the first field."""
    first = errors[0] if errors else {}
    where = ".".join(str(part) for part in first.get("loc", ()) if part not in ("body", "query", "path"))
    return problem(
        422,
        "invalid",
        f"“{where}” does not fit: {first.get('msg', 'it cannot be read')}.",
        where=where,
        fix="Correct it and send again.",
    )
