"""System checks: a wrong setting stops the start, with a hint."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.checks import CheckMessage, Error, register
from django.core.exceptions import ImproperlyConfigured

LOOPBACK = {"127.0.0.1", "localhost", "[::1]", "testserver"}


def refuse_unsound() -> None:
    """Stop the start however the application is served: an application server runs no command that would check."""
    wrong = [one for one in settings_are_sound() if one.is_serious()]
    if wrong:
        raise ImproperlyConfigured(" ".join(f"{one.msg} {one.hint}" for one in wrong))


@register()
def settings_are_sound(**kwargs: Any) -> list[CheckMessage]:
    """A secret is set, the demo is not public, the upload limit makes sense, the front end is built."""
    found: list[CheckMessage] = []
    if settings.SECRET_KEY == settings.NO_SECRET:
        found.append(
            Error("COATPEG_SECRET is not set.", hint="Give a random text of 50 characters.", id="coatpeg.E001")
        )
    if settings.DEMO and not set(settings.ALLOWED_HOSTS) <= LOOPBACK:
        found.append(
            Error(
                "Demo mode is on together with a public host.",
                hint="Take COATPEG_DEMO away, or serve 127.0.0.1 only: the demo signs anybody in.",
                id="coatpeg.E002",
            )
        )
    if settings.UPLOAD_LIMIT < 1024 * 1024:
        found.append(
            Error(
                "COATPEG_UPLOAD_LIMIT is below 1 MiB.", hint="It counts bytes; 209715200 is 200 MiB.", id="coatpeg.E003"
            )
        )
    return found
