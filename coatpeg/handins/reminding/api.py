"""Reminding those who owe."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from django.http import HttpRequest

from coatpeg.core.policy import Action
from coatpeg.handins.board.shapes import ReminderLine
from coatpeg.handins.reminding import commands, reading, shapes
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of


@router.post(
    "/groups/{group_id}/reminders",
    response=shapes.RemindedShape,
    operation_id="remind",
    openapi_extra=for_action(Action.REMIND),
)
def remind(request: HttpRequest, group_id: int, body: shapes.RemindIn) -> Any:
    """Remind students of what they owe; with ``only_look`` only say what would go to whom."""
    cells = [(one.enrolment, one.handin) for one in body.cells]
    found = commands.remind(
        person_of(request), group_id, cells, body.text, now(), again=body.again, only_look=body.only_look
    )
    return asdict(found)


@router.get(
    "/groups/{group_id}/handins/{handin_id}/students/{enrolment_id}/reminders",
    response=list[ReminderLine],
    operation_id="see_reminders",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_reminders(request: HttpRequest, group_id: int, handin_id: int, enrolment_id: int) -> Any:
    """When a student was reminded of a hand-in, newest first."""
    return reading.of_peg(person_of(request), group_id, handin_id, enrolment_id)
