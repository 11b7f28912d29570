"""Setting a hand-in."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Status

from coatpeg.core.handins.asking import Due
from coatpeg.core.policy import Action
from coatpeg.handins.asked import setting, shapes, taking_back
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Named


def _plan(body: shapes.PlanIn) -> setting.Plan:
    return setting.Plan(
        title=body.title,
        pockets=tuple(body.pockets),
        opens=body.opens,
        due=Due(body.due.day, body.due.at) if body.due else None,
        period_dues={one.period: Due(one.due.day, one.due.at) for one in body.periods if one.due},
        periods=None if body.for_everyone else frozenset(one.period for one in body.periods if one.asked),
        points=body.points,
        step=body.step,
    )


@router.post(
    "/groups/{group_id}/handins/preview",
    response=shapes.PreviewShape,
    operation_id="preview_handin",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def preview_handin(request: HttpRequest, group_id: int, body: shapes.PlanIn) -> Any:
    """Who would get a hand-in and when."""
    return setting.preview(person_of(request), group_id, _plan(body), now())


@router.post(
    "/groups/{group_id}/handins",
    response={201: Named},
    operation_id="set_handin",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def set_handin(request: HttpRequest, group_id: int, body: shapes.PlanIn) -> Any:
    """Set a hand-in."""
    made = setting.set_handin(person_of(request), group_id, _plan(body), now(), key=body.key)
    return Status(201, {"id": made.pk, "title": made.title})


@router.delete(
    "/groups/{group_id}/handins/{handin_id}",
    response={204: None},
    operation_id="take_back_handin",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def take_back_handin(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """Take back a hand-in for which nobody has done anything yet."""
    taking_back.take_back_handin(person_of(request), group_id, handin_id, now())
    return Status(204, None)
