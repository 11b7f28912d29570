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


_LABELS = {
    "at": "time",
    "day": "due",
    "due_again": "due again by",
    "family": "family name",
    "first": "first day",
    "given": "given name",
    "last": "last day",
    "name": "name",
    "opens": "opens",
    "percent": "length in percent",
    "rows": "lines of the list",
    "username": "user name",
}
"""Fields as the forms label them, where that is not their own name."""
_WORDS: dict[str, tuple[str, str]] = {
    "missing": ("is missing", "Fill it in."),
    "clock": ("is not a time of the school's own clock", "Give it as 14:30."),
    "string_too_long": ("has more than {max_length} characters", "Shorten it."),
    "string_too_short": ("is too short", "Write more."),
    "too_long": ("has more than {max_length} entries", "Bring it in parts."),
    "literal_error": ("is none of the choices", "Choose from the list."),
    "enum": ("is none of the choices", "Choose from the list."),
    "greater_than_equal": ("is less than {ge}", "Give {ge} or more."),
    "less_than_equal": ("is more than {le}", "Give {le} or less."),
    "decimal_max_digits": ("is too long a number", "Give fewer figures."),
    "decimal_max_places": ("has more than {decimal_places} decimal places", "Round it."),
    "decimal_whole_digits": ("is too large a number", "Give a smaller one."),
    "finite_number": ("is not a number", "Give a number."),
}
"""What is said of a value that does not fit, and how to mend it, by the reader's kind of error."""
_KINDS = (
    ("date", ("is not a day of the calendar", "Give a day, month and year.")),
    ("time", ("is not a time of day", "Give it as 14:30.")),
    ("int", ("is not a whole number", "Give a whole number.")),
    ("float", ("is not a number", "Give a number.")),
    ("decimal", ("is not a number", "Give a number.")),
    ("bool", ("is neither yes nor no", "Say which.")),
    ("string", ("is not a text", "Write it as text.")),
    ("list", ("is not a list", "Load the page again.")),
    ("dict", ("does not fit", "Load the page again.")),
)
_OTHERWISE = ("does not fit", "Correct it and send again.")
MOST_WRONG = 20


def _said(error: dict[str, Any]) -> dict[str, str]:
    """One error of a request's shape: where it is, what is wrong, how to mend it."""
    path = [part for part in error.get("loc", ()) if part not in ("body", "query", "path", "form", "file")]
    named = [part for part in path if isinstance(part, str)]
    field = named[-1] if named else ""
    place = next((f" {part + 1}" for part in path if isinstance(part, int)), "")
    kind = str(error.get("type", ""))
    usual = next((words for start, words in _KINDS if kind.startswith(start)), _OTHERWISE)
    what, fix = _WORDS.get(kind, usual)
    given = {name: str(value) for name, value in (error.get("ctx") or {}).items()}
    label = _LABELS.get(field, field.replace("_", " ")) or "what was sent"
    try:
        what, fix = what.format(**given), fix.format(**given)
    except KeyError:
        what, fix = _OTHERWISE
    return {
        "where": ".".join(str(part) for part in path),
        "what": f"“{label[:1].upper()}{label[1:]}{place}” {what}.",
        "fix": fix,
    }


def unreadable(errors: list[dict[str, Any]]) -> HttpResponse:
    """The answer to a request whose shape does not fit: every field that is wrong, as labelled, and its mending."""
    wrong = [_said(one) for one in errors[:MOST_WRONG]] or [
        {"where": "", "what": "It cannot be read.", "fix": _OTHERWISE[1]}
    ]
    return problem(
        422,
        "invalid",
        " ".join(one["what"] for one in wrong[:3]),
        where=wrong[0]["where"],
        fix=" ".join(dict.fromkeys(one["fix"] for one in wrong[:3])),
        wrong=wrong,
    )


def broken() -> HttpResponse:
    """The answer where the application itself failed: it is on record, and nothing of it was written."""
    return problem(
        500,
        "broken",
        "Something went wrong on our side.",
        fix="Nothing was changed. Try again; if it stays, tell whoever runs Coat Peg when it happened.",
    )
