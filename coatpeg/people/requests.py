"""What every API function takes from its request: who, and when. The one place that calls the clock."""

from __future__ import annotations

from datetime import datetime

from django.http import HttpRequest
from django.utils import timezone

from coatpeg.people.models import Person


def person_of(request: HttpRequest) -> Person:
    """The signed-in person; the API's authentication has made sure that there is one."""
    assert isinstance(request.user, Person)
    return request.user


def now() -> datetime:
    """The server's moment, UTC."""
    return timezone.now()
