"""What every API function takes from its request: who, and when. The one place that calls the clock."""

from __future__ import annotations

from datetime import datetime
from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from coatpeg.core.policy import Action
from coatpeg.people.models import Person


def person_of(request: HttpRequest) -> Person:
    """The signed-in person; the API's authentication has made sure that there is one."""
    assert isinstance(request.user, Person)
    # Not what stands for them until they are asked for: it costs again at each of their attributes.
    person: Person = getattr(request.user, "_wrapped", request.user)
    return person


def for_action(action: Action) -> dict[str, str]:
    """What an operation adds to its entry in the document: the policy's action that it asks for."""
    return {"x-action": action.name}


def as_json(data: Any) -> HttpResponse:
    """Plain data straight to JSON, where an answer is large or asked for often; a test holds it to its shape."""
    return HttpResponse(orjson.dumps(data, option=orjson.OPT_UTC_Z), content_type="application/json")


def now() -> datetime:
    """The server's moment, UTC."""
    return timezone.now()
