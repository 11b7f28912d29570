"""Acting on many at once."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from django.http import HttpRequest

from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.many import Move
from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.handins.many import commands, handing_for, locks, shapes
from coatpeg.handins.many.choosing import Seen
from coatpeg.handins.many.undoing import undo_deed
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of

LOCK = for_action(Action.LOCK_POCKETS)


def seen_in(body: shapes.ManyIn) -> list[Seen]:
    """The chosen cells as they were seen."""
    return [Seen(one.handin, one.enrolment, Status(one.status)) for one in body.cells]


@router.post(
    "/groups/{group_id}/cells/excused",
    response=shapes.TouchedShape,
    operation_id="excuse_many",
    openapi_extra=for_action(Action.EXCUSE),
)
def excuse_many(request: HttpRequest, group_id: int, body: shapes.ExcuseManyIn) -> Any:
    """Excuse many students from hand-ins, or end their excuses."""
    person, moment = person_of(request), now()
    return asdict(
        commands.excuse_many(person, group_id, seen_in(body), moment, excused=body.excused, only_look=body.only_look)
    )


@router.post(
    "/groups/{group_id}/cells/due",
    response=shapes.MovedManyShape,
    operation_id="move_dues",
    openapi_extra=for_action(Action.SET_OWN_DUE),
)
def move_dues(request: HttpRequest, group_id: int, body: shapes.MoveManyIn) -> Any:
    """Move the due dates of many students."""
    move = Move(body.days, Due(body.day, body.at) if body.day else None)
    touched, before = commands.move_dues(
        person_of(request), group_id, seen_in(body), move, now(), only_look=body.only_look
    )
    lines = [
        {
            "handin": one.handin,
            "enrolment": one.enrolment,
            "day": one.own.day if one.own else None,
            "at": one.own.at if one.own else None,
        }
        for one in before
    ]
    return {**asdict(touched), "before": lines}


@router.put(
    "/groups/{group_id}/cells/due",
    response=shapes.RestoredShape,
    operation_id="restore_dues",
    openapi_extra=for_action(Action.SET_OWN_DUE),
)
def restore_dues(request: HttpRequest, group_id: int, body: shapes.RestoreIn) -> Any:
    """Put own due dates back as they were before they were moved."""
    before = [
        commands.Before(one.handin, one.enrolment, Due(one.day, one.at) if one.day else None) for one in body.before
    ]
    return {"cells": commands.restore_dues(person_of(request), group_id, before, now())}


def _locked(done: locks.LockedPockets) -> dict[str, Any]:
    return {**asdict(done.touched), "deed": done.deed, "handed_in": done.handed_in}


@router.post(
    "/groups/{group_id}/cells/locked", response=shapes.LockedShape, operation_id="lock_cells", openapi_extra=LOCK
)
def lock_cells(request: HttpRequest, group_id: int, body: shapes.LockManyIn) -> Any:
    """Lock or open what many cells collect."""
    what = locks.Locking(body.locked, body.reason)
    return _locked(locks.lock_cells(person_of(request), group_id, seen_in(body), what, now(), only_look=body.only_look))


@router.post(
    "/groups/{group_id}/pockets/{pocket_id}/locked",
    response=shapes.LockedShape,
    operation_id="lock_pocket",
    openapi_extra=LOCK,
)
def lock_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: shapes.LockPocketIn) -> Any:
    """Lock or open one pocket, of some students or of everybody."""
    what = locks.Locking(body.locked, body.reason)
    person, moment = person_of(request), now()
    return _locked(
        locks.lock_pocket(person, group_id, pocket_id, body.students, what, moment, only_look=body.only_look)
    )


@router.post(
    "/groups/{group_id}/cells/handed-in",
    response=shapes.DeedShape,
    operation_id="hand_in_for",
    openapi_extra=for_action(Action.HAND_IN_FOR),
)
def hand_in_for(request: HttpRequest, group_id: int, body: shapes.HandInForIn) -> Any:
    """Hand in for students."""
    received = handing_for.Received(Due(body.day, body.at) if body.day else None, body.how)
    touched, name = handing_for.hand_in_for(
        person_of(request), group_id, seen_in(body), received, now(), only_look=body.only_look
    )
    return {**asdict(touched), "deed": name}


@router.delete(
    "/groups/{group_id}/cells/locked/{deed}",
    response=shapes.UndoneShape,
    operation_id="undo_locks",
    openapi_extra=LOCK,
)
def undo_locks(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Undo what was locked, or opened."""
    return asdict(undo_deed(person_of(request), group_id, Action.LOCK_POCKETS, deed, now()))


@router.delete(
    "/groups/{group_id}/cells/handed-in/{deed}",
    response=shapes.UndoneShape,
    operation_id="undo_handed_in_for",
    openapi_extra=for_action(Action.HAND_IN_FOR),
)
def undo_handed_in_for(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Take back what was handed in for students."""
    return asdict(undo_deed(person_of(request), group_id, Action.HAND_IN_FOR, deed, now()))
