"""Rubrics to begin from."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.handins.shapes import RubricShape
from coatpeg.marking.rubrics import finding
from coatpeg.people.requests import for_action, person_of
from coatpeg.people.shapes import Shape

router = Router(tags=["marking"])
SET = for_action(Action.SET_HANDIN)


class RubricTableIn(Shape):
    """Cells of a spreadsheet, or a CSV file's text."""

    text: str = Field(max_length=finding.LONGEST)


class FoundRubric(Shape):
    """A rubric to begin from: a hand-in's (``of`` is its class), or one of the gallery."""

    title: str
    of: str
    rubric: RubricShape


@router.get("/groups/{group_id}/rubrics", response=list[FoundRubric], operation_id="see_rubrics", openapi_extra=SET)
def see_rubrics(request: HttpRequest, group_id: int) -> Any:
    """Rubrics to begin from."""
    return finding.found(person_of(request), group_id)


@router.post("/groups/{group_id}/rubrics/read", response=RubricShape, operation_id="read_rubric", openapi_extra=SET)
def read_rubric(request: HttpRequest, group_id: int, body: RubricTableIn) -> Any:
    """The rubric that a table holds."""
    return finding.read(person_of(request), group_id, body.text)
