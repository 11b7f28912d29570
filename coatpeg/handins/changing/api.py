"""Changing a hand-in, taking it away, bringing it back."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from django.http import HttpRequest

from coatpeg.core.policy import Action
from coatpeg.handins.asked.api import plan_in
from coatpeg.handins.asked.shapes import PlanIn
from coatpeg.handins.changing import commands, impact, laying_out, moving_on, reading, shapes
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Named

SET = for_action(Action.SET_HANDIN)
ONE = "/groups/{group_id}/handins/{handin_id}"


@router.get(ONE, response=shapes.PlanShape, operation_id="see_handin", openapi_extra=for_action(Action.SEE_HANDINS))
def see_handin(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """A hand-in as it was filled in."""
    return reading.handin_plan(person_of(request), group_id, handin_id)


@router.get(
    "/groups/{group_id}/handins/like/{handin_id}",
    response=shapes.PlanShape,
    operation_id="lay_out_handin_like",
    openapi_extra=SET,
)
def lay_out_handin_like(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """A new hand-in like one of a class of this person, laid out for this class."""
    return reading.like(person_of(request), group_id, handin_id)


@router.post(f"{ONE}/preview", response=shapes.HandInImpact, operation_id="preview_handin_change", openapi_extra=SET)
def preview_handin_change(request: HttpRequest, group_id: int, handin_id: int, body: PlanIn) -> Any:
    """What a change of a hand-in would mean for whom."""
    return asdict(impact.preview_change(person_of(request), group_id, handin_id, plan_in(body), now()))


@router.put(ONE, response=shapes.ChangedShape, operation_id="change_handin", openapi_extra=SET)
def change_handin(request: HttpRequest, group_id: int, handin_id: int, body: shapes.ChangeIn) -> Any:
    """Change a hand-in."""
    handin, meant, left = commands.change_handin(
        person_of(request), group_id, handin_id, plan_in(body), body.version, now(), scope=body.scope
    )
    made = {"id": handin.pk, "title": handin.title, "version": handin.version}
    return {**made, "impact": asdict(meant), "left": left}


@router.post(f"{ONE}/away", response=Named, operation_id="take_away_handin", openapi_extra=SET)
def take_away_handin(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """Take a hand-in away; what was handed in stays readable."""
    handin = commands.take_away(person_of(request), group_id, handin_id, now())
    return {"id": handin.pk, "title": handin.title}


@router.delete(f"{ONE}/away", response=Named, operation_id="bring_back_handin", openapi_extra=SET)
def bring_back_handin(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """Bring a hand-in back that was taken away."""
    handin = commands.bring_back(person_of(request), group_id, handin_id, now())
    return {"id": handin.pk, "title": handin.title}


@router.post("/groups/{group_id}/moved-on", response=shapes.MovedOnShape, operation_id="move_on", openapi_extra=SET)
def move_on(request: HttpRequest, group_id: int, body: shapes.MoveOnIn) -> Any:
    """Move all dates from a day on by so many school days; with ``only_look`` it is said what would move."""
    done = moving_on.move_on(
        person_of(request),
        group_id,
        body.first,
        body.days,
        now(),
        everywhere=body.everywhere,
        only_look=body.only_look,
    )
    return asdict(done)


@router.delete(
    "/groups/{group_id}/moved-on/{deed}",
    response=shapes.MovedBackShape,
    operation_id="move_back",
    openapi_extra=SET,
)
def move_back(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Undo a moving on."""
    return asdict(moving_on.move_back(person_of(request), group_id, deed, now()))


@router.post(
    "/groups/{group_id}/laid-out", response=shapes.LaidOutShape, operation_id="lay_out_handins", openapi_extra=SET
)
def lay_out_handins(request: HttpRequest, group_id: int, body: shapes.LayOutIn) -> Any:
    """Lay the hand-ins of another class on the weeks of this one, as drafts."""
    return asdict(laying_out.lay_out(person_of(request), group_id, body.source, now(), only_look=body.only_look))


@router.delete(
    "/groups/{group_id}/laid-out/{deed}",
    response=shapes.TakenUpShape,
    operation_id="take_up_handins",
    openapi_extra=SET,
)
def take_up_handins(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Undo a laying out."""
    return asdict(laying_out.take_up(person_of(request), group_id, deed, now()))
