"""All classes of a member of staff on one page, the patterns of one, and how full its weeks are."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest

from coatpeg.core.policy import Action
from coatpeg.handins.board import classes_shapes
from coatpeg.handins.board.load import load_of
from coatpeg.handins.board.my_classes import my_classes
from coatpeg.handins.board.patterns import patterns
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of


@router.get(
    "/classes",
    response=classes_shapes.MyClassesShape,
    by_alias=True,
    operation_id="see_my_classes",
    openapi_extra=for_action(Action.USE_ACCOUNT),
)
def see_my_classes(request: HttpRequest) -> Any:
    """Every class whose pegs one sees, with what waits there."""
    return my_classes(person_of(request), now())


@router.post(
    "/groups/{group_id}/patterns",
    response=classes_shapes.PatternsShape,
    by_alias=True,
    operation_id="see_patterns",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_patterns(request: HttpRequest, group_id: int, body: classes_shapes.PatternsIn) -> Any:
    """When work comes, who is usually late, how far each is against what is expected by now."""
    return patterns(person_of(request), group_id, now(), body.students)


@router.get(
    "/groups/{group_id}/load",
    response=classes_shapes.LoadShape,
    operation_id="see_load",
    openapi_extra=for_action(Action.SEE_HANDINS),
)
def see_load(request: HttpRequest, group_id: int) -> Any:
    """How much is due for the students of a class in each week, over all their classes."""
    return load_of(person_of(request), group_id, now())
