"""A caseload: its students with how they stand in all their classes, and what was agreed for them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import asdict, dataclass
from datetime import date, datetime
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.handins.load import loaded_weeks, monday_of
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
    due: dict[int, list[_Due]] = defaultdict(list)
    for group in _groups_of(people):
        view = situation(group.pk, now)
        books = dict(Portfolio.objects.filter(enrolment__group=group).values_list("enrolment_id", "pk"))
        for member in view.members:
            if member.person_id in people and not _left(member, today):
                classes[member.person_id].append(_in_class(view, member, group, books[member.enrolment_id]))
        for person_id, thing in _due_in(view, group):
            due[person_id].append(thing)
    full = _full_weeks({one: due[one] for one in people}, today)
    return {
        "today": today,
        "students": [
            {
                **face(one),
                "find": search_key(one.full_name),
                "classes": classes[one.person_id],
                "full_weeks": full[one.person_id],
                "adjustments": agreed[one.person_id],
            }
            for one in of_caseload
        ],
    }


@dataclass(frozen=True, slots=True, order=True)
class _Due:
    """What is due for somebody, when, in which class."""

    day: date
    title: str
    class_name: str


def _due_in(view: Situation, group: TeachingGroup) -> Iterator[tuple[int, _Due]]:
    """What is due for everybody who is in a class now, and when it is due for them (person, what)."""
    here = [one.student.is_enrolled(view.today) for one in view.members]
    for handin, column in zip(view.handins, view.columns, strict=True):
        for member, is_here, answer in zip(view.members, here, column.answers, strict=True):
            if is_here and answer.asked and answer.due.due:
                yield member.person_id, _Due(answer.due.due.day, handin.title, group.name)


def _full_weeks(due: Mapping[int, list[_Due]], today: date) -> dict[int, list[dict[str, Any]]]:
    """By person, the weeks from this one on in which too much is due, with all that is due then."""
    days = [(person_id, one.day) for person_id, of in due.items() for one in of]
    found: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for week in loaded_weeks(days):
        for person_id, _ in week.full if week.monday >= monday_of(today) else ():
            of = sorted(one for one in due[person_id] if monday_of(one.day) == week.monday)
            found[person_id].append({"monday": week.monday, "due": [asdict(one) for one in of]})
    return found


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
