"""The few ways in which Coat Peg says no.

::

    CoatPegError      what went wrong, where, and how to fix it
    ├── Refused       you may not do this, or not now (HTTP 403)
    ├── Invalid       the input cannot be used as it is (HTTP 422)
    │   ├── TooLarge  it is over a limit of this installation (HTTP 413)
    │   └── OtherVersion  it speaks another version of a protocol (HTTP 412)
    ├── Stale         it was changed meanwhile; nothing was written (HTTP 409)
    │   └── Busy      somebody else is at it this moment (HTTP 423)
    └── Gone          there is no such thing for you (HTTP 404)

They are mapped to HTTP in one place (``coatpeg.web.problems``).
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any


class CoatPegError(Exception):
    """``what`` happened, ``where`` (a field or an object) and the ``fix``; ``more`` is data for the client."""

    kind = "error"

    def __init__(self, what: str, *, where: str = "", fix: str = "", more: Mapping[str, Any] | None = None) -> None:
        super().__init__(what)
        self.what = what
        self.where = where
        self.fix = fix
        self.more = dict(more or {})


class Refused(CoatPegError):
    """The person may not do this, or the state of the work forbids it."""

    kind = "refused"


class Invalid(CoatPegError):
    """The input cannot be used as it is."""

    kind = "invalid"


class TooLarge(Invalid):
    """The input is over a limit of this installation."""

    kind = "too-large"


class OtherVersion(Invalid):
    """The client speaks a version of a protocol that is not spoken here."""

    kind = "other-version"


class Stale(CoatPegError):
    """Somebody (or another tab) was quicker; ``more`` holds what stands there now."""

    kind = "stale"


class Busy(Stale):
    """Somebody, or an earlier request, is at it this moment."""

    kind = "busy"


class Gone(CoatPegError):
    """There is no such thing, or none that this person may know of."""

    kind = "gone"
