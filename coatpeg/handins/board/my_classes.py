"""All classes of a member of staff at once: what is due, who owes, what waits to be marked, who is quiet.

Decided here: only students who are in the class today are counted, each once however much they owe; caseloads and
classes in which one is a student are not here. The hand-in of a class is the one due next; where nothing is due any
more, the one that was due last. Statements grow with the number of classes, not of students.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.pegs import COUNTING
from coatpeg.handins.board.situation import Cell, Situation, facts_in, situation
from coatpeg.people.accounts import Membership, memberships
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import face
from coatpeg.people.models import Person
from coatpeg.people.rosters import Member


def boards_of(found: list[Membership]) -> list[Membership]:
    """Those of somebody's groups whose pegs they see, but for those that are put away."""
    return [one for one in found if Action.SEE_BOARD in one.may and not one.put_away]


def my_classes(person: Person, now: datetime) -> dict[str, Any]:
    """Every class whose pegs this person sees, by name, and what has waited longest to be marked in any of them."""
    calendar = school_calendar()
    lines, waiting = [], []
    for one in boards_of(memberships(person)):
        view = situation(one.group_id, now, calendar=calendar)
        here = [member for member in view.members if member.student.is_enrolled(view.today)]
        to_mark = _to_mark(view)
        lines.append(_line(view, one, here, len(to_mark)))
        if Action.MARK in one.may:
            waiting += [(facts_in(view, *cell).newest_at or now, cell, one, view) for cell in to_mark]
    oldest = min(waiting, key=lambda line: (line[0], line[1]), default=None)
    return {
        "today": calendar.local_day(now),
        "classes": lines,
        "to_mark": len(waiting),
        "oldest": _waiting(*oldest) if oldest else None,
    }


def _to_mark(view: Situation) -> list[Cell]:
    return [cell for cell, standing in view.standings.items() if standing.status is Status.HANDED_IN]


def _line(view: Situation, one: Membership, here: list[Member], to_mark: int) -> dict[str, Any]:
    ids = {member.enrolment_id for member in here}
    owing = {enrolment for (enrolment, _), standing in view.standings.items() if standing.overdue} & ids
    handin = _next(view)
    return {
        "id": one.group_id,
        "name": one.name,
        "kind": one.kind,
        "role": one.role.value,
        "periods": sorted({member.period for member in here if member.period}),
        "students": len(here),
        "handin": _handin(view, handin) if handin else None,
        "due_today": sum(1 for of in view.handins if view.today in _days(of)),
        "owing": len(owing),
        "to_mark": to_mark,
        "quiet": sum(1 for member in here if view.quiet(member)),
    }


def _days(handin: AskedHandIn) -> set[Any]:
    """The days on which it is due for the class or a period."""
    dues = [handin.asked.due, *(handin.asked.period_dues or {}).values()]
    return {due.day for due in dues if due}


def _next(view: Situation) -> AskedHandIn | None:
    dated = [one for one in view.handins if one.asked.earliest is not None]
    coming = [one for one in dated if max(_days(one)) >= view.today]
    return coming[0] if coming else dated[-1] if dated else None


def _handin(view: Situation, handin: AskedHandIn) -> dict[str, Any]:
    statuses = [view.standings[member.enrolment_id, handin.id].status for member in view.members]
    return {
        "id": handin.id,
        "title": handin.title,
        "opens": handin.asked.opens,
        "open": view.now >= handin.opening(view.calendar),
        "due": min((day for day in _days(handin) if day >= view.today), default=handin.asked.earliest),
        "asked": sum(status in COUNTING["asked"] for status in statuses),
        "in": sum(status in COUNTING["in"] for status in statuses),
    }


def _waiting(at: datetime, cell: Cell, one: Membership, view: Situation) -> dict[str, Any]:
    """What has waited longest: whose, of which hand-in, in which class, for how many school days."""
    enrolment, handin = cell
    member = next(member for member in view.members if member.enrolment_id == enrolment)
    days = view.calendar.between(view.calendar.local_day(at), view.today)
    return {
        "group": one.group_id,
        "class_name": one.name,
        "student": face(member),
        "handin": next(of.title for of in view.handins if of.id == handin),
        "submission": facts_in(view, *cell).newest,
        "at": at,
        "school_days": max(0, days),
    }
