"""A caseload: its students with how they stand in all their classes, and what was agreed for them."""

from __future__ import annotations

from collections import defaultdict
from datetime import date, datetime
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.handins.worklist import to_do
from coatpeg.core.people.names import search_key
from coatpeg.core.policy import Action
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.people.access import require_in_group
from coatpeg.people.adjustments import adjustment_data
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import face
from coatpeg.people.models import Adjustment, Enrolment, Person, TeachingGroup
from coatpeg.people.rosters import Member, members
from coatpeg.portfolios.models import Portfolio


def overview(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The students of a caseload by surname; queries grow with the number of their classes, not of students."""
    require_in_group(person, Action.SEE_CASELOAD, group_id)
    if not TeachingGroup.objects.filter(pk=group_id, kind=TeachingGroup.Kind.CASELOAD).exists():
        # The staff of a class see their own class only, whatever else its students are in.
        raise Gone("This is not a caseload.", fix="Go to the pegs of the class.")
    today = school_calendar().local_day(now)
    of_caseload = [one for one in members(group_id, today) if not _left(one, today)]
    people = [one.person_id for one in of_caseload]
    agreed: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for row in Adjustment.objects.filter(person__in=people).select_related("agreed_by").order_by("-first", "-pk"):
        agreed[row.person_id].append(adjustment_data(row))
    classes: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for group in _groups_of(people):
        view = situation(group.pk, now)
        books = dict(Portfolio.objects.filter(enrolment__group=group).values_list("enrolment_id", "pk"))
        for member in view.members:
            if member.person_id in people and not _left(member, today):
                classes[member.person_id].append(_in_class(view, member, group, books[member.enrolment_id]))
    return {
        "today": today,
        "students": [
            {
                **face(one),
                "find": search_key(one.full_name),
                "classes": classes[one.person_id],
                "adjustments": agreed[one.person_id],
            }
            for one in of_caseload
        ],
    }


def _left(member: Member, today: date) -> bool:
    last = member.student.enrolled.last
    return last is not None and last < today


def _groups_of(people: list[int]) -> list[TeachingGroup]:
    """The classes and cohorts that any of these people is in."""
    ids = Enrolment.objects.filter(person__in=people).values_list("group_id", flat=True).distinct()
    found = TeachingGroup.objects.filter(pk__in=list(ids)).exclude(kind=TeachingGroup.Kind.CASELOAD)
    return list(found.order_by("name", "pk"))


def _in_class(view: Situation, member: Member, group: TeachingGroup, portfolio: int) -> dict[str, Any]:
    """How one student stands in one class."""
    standings = [(one, view.standings[member.enrolment_id, one.id]) for one in view.handins]
    filled = view.filled(member, whole=False)
    return {
        "group": group.pk,
        "name": group.name,
        "enrolment": member.enrolment_id,
        "portfolio": portfolio,
        "waiting": sum(1 for _, standing in standings if to_do(standing)),
        "overdue": [handin.title for handin, standing in standings if standing.overdue],
        "late": sum(1 for _, standing in standings if standing.late),
        "moved": sum(1 for one in view.handins if view.dues[member.enrolment_id, one.id].extra_days),
        "met": filled.met,
        "wanted": filled.wanted,
        "quiet": view.quiet(member),
    }
