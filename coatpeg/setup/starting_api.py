"""Starting a class."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.people.models import TeachingGroup
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Day, Named, Shape
from coatpeg.setup.starting import start_group

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
