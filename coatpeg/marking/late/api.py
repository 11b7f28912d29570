"""The late rule."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router

from coatpeg.core.policy import Action
from coatpeg.marking.late import ruling
from coatpeg.marking.late.shapes import LateRuleIn, LateRuleShape
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["marking"])


@router.get(
    "/late-rule",
    response=LateRuleShape,
    operation_id="see_late_rule",
    openapi_extra=for_action(Action.SEE_CALENDAR),
)
def see_late_rule(request: HttpRequest) -> Any:
    """What the school takes from a score for being late."""
    return ruling.late_rule_data(person_of(request))


@router.put(
    "/late-rule",
    response=LateRuleShape,
    operation_id="set_late_rule",
    openapi_extra=for_action(Action.KEEP_LATE_RULE),
)
def set_late_rule(request: HttpRequest, body: LateRuleIn) -> Any:
    """Set that rule, or end it."""
    person = person_of(request)
    ruling.set_late_rule(person, body.per_day, body.floor, body.version, now())
    return ruling.late_rule_data(person)
