"""The marking pile: what waits in a class, or in all classes that somebody marks in.

Only what waits is judged: whoever has a submission that stands without an outcome is asked and has handed in, so that
alone is left to be said how late it came (``core.handins.standing``). Decided here: over all classes those are meant
in which one marks today, as they stand by name, without classes that are put away.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import Any

import orjson

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.handins.standing import Facts, by_newest, judge_column
from coatpeg.core.marking.pace import pace
from coatpeg.core.policy import Action
from coatpeg.events.moments import quick
from coatpeg.events.prepared import Prepared
from coatpeg.handins.asked.asking import handins_of_group
from coatpeg.handins.lines import standing_data
from coatpeg.handins.models import KeptFacts, Outcome
from coatpeg.marking.two import marks
from coatpeg.people.access import require_in_group
from coatpeg.people.accounts import memberships
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import face
from coatpeg.people.models import Person
from coatpeg.people.rosters import members

A_DAY = timedelta(days=1)
_WAITING = Prepared(
    lambda group_id: KeptFacts.objects.filter(
        handin__group_id=group_id, outcome=None, excused=False, newest__isnull=False
    ).values_list("enrolment_id", "handin_id", quick("first_at"), "newest", quick("newest_at"), "submissions")
)


def pile(person: Person, group_id: int, now: datetime) -> bytes:
    """What waits for this person in a class, oldest first, as JSON (``shapes.Pile``): a fixed number of queries."""
    require_in_group(person, Action.SEE_PILE, group_id)
    calendar = school_calendar()
    waiting = _waiting_for(person, group_id, "", now, calendar)
    return _written(person, waiting, now, calendar, Outcome.objects.filter(submission__handin__group_id=group_id))


def whole_pile(person: Person, now: datetime) -> bytes:
    """The same over all classes that this person marks in; statements grow with these, not with what waits."""
    calendar = school_calendar()
    of = [one for one in memberships(person) if Action.MARK in one.may and not one.put_away]
    waiting = [line for one in of for line in _waiting_for(person, one.group_id, one.name, now, calendar)]
    return _written(person, waiting, now, calendar, Outcome.objects.all())


def _waiting_for(
    person: Person, group_id: int, name: str, now: datetime, calendar: SchoolCalendar
) -> list[dict[str, Any]]:
    facts: dict[int, dict[int, Facts]] = defaultdict(dict)
    for enrolment, handin_id, first, newest, at, count in _WAITING.run(group_id):
        facts[handin_id][enrolment] = Facts(first, newest, at, count)
    if not facts:
        return []
    of_group = members(group_id, calendar.local_day(now))
    faces = {one.enrolment_id: face(one) for one in of_group}
    waiting = []
    for handin in handins_of_group(group_id):
        of = facts.get(handin.id, {})
        mine = [one for one in of_group if one.enrolment_id in of]
        dues = [answer.due.moment for answer in handin.answers(mine, calendar)]
        told = [
            (by_newest(of[one.enrolment_id]) if handin.again else of[one.enrolment_id], True, due, True)
            for one, due in zip(mine, dues, strict=True)
        ]
        column = judge_column(told, opens=handin.opening(calendar), now=now, calendar=calendar)
        named = {"id": handin.id, "title": handin.title}
        for one, standing in zip(mine, column, strict=True):
            found = of[one.enrolment_id]
            waiting.append(
                {
                    "submission": found.newest,
                    "at": found.newest_at,
                    "count": found.submissions,
                    "group": group_id,
                    "class_name": name,
                    "handin": named,
                    "student": faces[one.enrolment_id],
                    "agree": False,
                    **standing_data(standing),
                }
            )
    return marks.own_pile(person, group_id, waiting)


def _written(
    person: Person, waiting: list[dict[str, Any]], now: datetime, calendar: SchoolCalendar, outcomes: Any
) -> bytes:
    """The pile, with how fast this person marks today. Written straight to JSON: a year group's is a megabyte."""
    recent: Iterable[datetime] = outcomes.filter(voided_at=None, person=person, at__gt=now - A_DAY).values_list(
        "at", flat=True
    )
    today = calendar.local_day(now)
    done = [at for at in recent if calendar.local_day(at) == today]
    waiting.sort(key=lambda one: (one["at"], one["submission"]))
    each = pace(done)
    found = {"waiting": waiting, "marked_today": len(done), "pace": round(each.total_seconds()) if each else None}
    return orjson.dumps(found, option=orjson.OPT_UTC_Z)
