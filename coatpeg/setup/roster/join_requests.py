"""A class's requests for students known from elsewhere: asking, and what each side sees of them.

Decided here: a request waits for ten school days; a second one for the same student and class is the same one. Whoever
asks sees their own words and nothing of whom they meant; whoever may say so sees both.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, datetime
from typing import Any

from django.db.models import QuerySet

from coatpeg.core.errors import Gone
from coatpeg.core.people.roster_plan import Entry, Line
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.notices.putting import put
from coatpeg.people.access import led_students, require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import JoinRequest, Person, TeachingGroup
from coatpeg.setup.roster.memberships import locked_group

WAITS = 10
"""School days after which a request lapses."""


def ask(doing: Deed, person: Person, group: TeachingGroup, lines: Iterable[Line], first: date | None) -> None:
    """Keep requests for the students whom lines may mean. Within the deed that applies the list."""
    calendar = school_calendar()
    today = calendar.local_day(doing.now)
    standing = set(_waiting(today).filter(group=group).values_list("student_id", flat=True))
    for line in lines:
        if line.person is None or line.person in standing:
            continue
        entry = line.entry
        made = JoinRequest.objects.create(
            group=group,
            student_id=line.person,
            asked_by=person,
            asked_at=doing.now,
            lapses=calendar.after(today, WAITS),
            entry={"family": entry.family, "given": entry.given, "period": entry.period, "group": entry.group},
            first=first,
        )
        doing.record("join_requested", group.pk, request=made.pk)
        put(doing, "join_requested", None, request=made.pk)


def _waiting(today: date) -> QuerySet[JoinRequest]:
    return JoinRequest.objects.filter(state=JoinRequest.State.WAITING, lapses__gte=today, group__last__gte=today)


def to_decide(person: Person, now: datetime) -> QuerySet[JoinRequest]:
    """Requests that wait for this person's word, oldest first."""
    waiting = _waiting(school_calendar().local_day(now)).select_related("group", "student", "asked_by").order_by("pk")
    return waiting if person.is_administrator else waiting.filter(student__in=led_students(person)[0])


def entry_of(request: JoinRequest) -> Entry:
    """The line that asked."""
    return Entry(**request.entry)


def asked_of(person: Person, now: datetime) -> list[dict[str, Any]]:
    """What waits for this person's word: who, into which class, who asks."""
    return [
        {
            "id": one.pk,
            "name": one.student.listed,
            "into": one.group.name,
            "kind": one.group.kind,
            "asked_by": one.asked_by.full_name,
            "asked_at": one.asked_at,
            "lapses": one.lapses,
        }
        for one in to_decide(person, now)
    ]


def asked_by(person: Person, group_id: int, now: datetime) -> list[dict[str, Any]]:
    """What a class has asked for and waits: in the words of its list."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    waiting = _waiting(school_calendar().local_day(now)).filter(group_id=group_id).order_by("pk")
    return [
        {"id": one.pk, "name": entry_of(one).listed, "asked_at": one.asked_at, "lapses": one.lapses} for one in waiting
    ]


def withdraw(person: Person, group_id: int, request_id: int, now: datetime) -> None:
    """Take a request back."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        locked_group(group_id)
        rows = _waiting(school_calendar().local_day(now)).filter(pk=request_id, group_id=group_id)
        if not rows.update(state=JoinRequest.State.WITHDRAWN, settled_by=person, settled_at=now):
            raise Gone("This request was settled already.", fix="Look at the class list again.")
        doing.record("join_withdrawn", group_id, request=request_id)
