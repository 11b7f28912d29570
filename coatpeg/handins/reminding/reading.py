"""Reminders as they are read: by their student while anything of them waits, by staff beside the peg."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime, timedelta
from typing import Any

from coatpeg.core.policy import Action
from coatpeg.handins.models import Reminder
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person

SHOWN_FOR = timedelta(days=14)


def for_student(enrolment_id: int, waiting: Collection[int], now: datetime) -> list[dict[str, Any]]:
    """The newest reminder of the last two weeks of which anything still waits, in its words: one query."""
    rows = Reminder.objects.filter(enrolment_id=enrolment_id, at__gt=now - SHOWN_FOR).select_related("person")
    for one in rows.order_by("-at", "-pk"):
        if set(one.handins) & set(waiting):
            by = one.person.full_name
            return [{"id": one.pk, "at": one.at, "by": by, "text": one.text}]
    return []


def of_peg(person: Person, group_id: int, handin_id: int, enrolment_id: int) -> list[dict[str, Any]]:
    """When a student of this class was reminded of one hand-in and by whom, newest first."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    rows = (
        Reminder.objects.filter(group_id=group_id, enrolment_id=enrolment_id)
        .select_related("person")
        .order_by("-at", "-pk")
    )
    return [
        {"id": one.pk, "at": one.at, "by": one.person.full_name, "text": one.text}
        for one in rows
        if handin_id in one.handins
    ]
