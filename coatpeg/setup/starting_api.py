"""Starting a class."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.people.models import TeachingGroup
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Day, Named, Shape
from coatpeg.setup.starting import change_class, class_facts, start_group

router = Router(tags=["templates"])


class GroupIn(Shape):
    """A class, caseload or cohort to start; ``lead`` is another person's id, for administrators."""

    name: str = Field(max_length=200)
    kind: Literal["class", "cohort", "caseload"] = "class"
    first: Day
    last: Day
    lead: int | None = None


@router.post(
    "/groups",
    response={201: Named},
    operation_id="start_class",
    openapi_extra=for_action(Action.START_CLASS),
)
def start_class(request: HttpRequest, body: GroupIn) -> Any:
    """Start a class."""
    made = start_group(
        person_of(request),
        body.name,
        TeachingGroup.Kind(body.kind),
        body.first,
        body.last,
        now(),
        lead_id=body.lead,
    )
    return Status(201, {"id": made.pk, "title": made.name})


class ClassIn(Shape):
    """What a class is called and from when to when it runs."""

    name: str = Field(max_length=200)
    first: Day
    last: Day


class ClassShape(Shape):
    """The same as it stands; ``outside`` are hand-ins that are due on other days, by title."""

    title: str
    first: date
    last: date
    may_change: bool
    outside: list[str]


ONE = "/groups/{group_id}"


@router.get(ONE, response=ClassShape, operation_id="see_class", openapi_extra=for_action(Action.SEE_STAFF))
def see_class(request: HttpRequest, group_id: int) -> Any:
    """What a class is called and when it runs."""
    return asdict(class_facts(person_of(request), group_id))


@router.put(ONE, response=ClassShape, operation_id="change_class", openapi_extra=for_action(Action.KEEP_CLASS))
def change_class_(request: HttpRequest, group_id: int, body: ClassIn) -> Any:
    """Rename a class, move its days."""
    return asdict(change_class(person_of(request), group_id, body.name, body.first, body.last, now()))
