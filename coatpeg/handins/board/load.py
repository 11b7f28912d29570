"""How much is due for the students of a class in each week, over all their classes.

Decided here: how many students a week is too full for is for all staff of the class; which ones, each with their
number, is for who follows them over their classes, its observers (the coordinator sees it in the caseload). Nobody
sees here what it is that is due elsewhere.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from datetime import date, datetime
from typing import Any

from coatpeg.core.handins.load import HEAVY, loaded_weeks
from coatpeg.core.policy import Action, decide
from coatpeg.handins.asked.asking import handins_of_group
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person, TeachingGroup
from coatpeg.people.rosters import members


def load_of(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The weeks of a class's students who are in it today; statements grow with the number of their classes."""
    standings = require_in_group(person, Action.SEE_HANDINS, group_id)
    names_them = decide(Action.SEE_FULL_WEEKS, standings).allowed
    today = school_calendar().local_day(now)
    here = [one for one in members(group_id, today) if one.student.is_enrolled(today)]
    enrolments = {one.person_id: one.enrolment_id for one in here}
    weeks = loaded_weeks(_dues(list(enrolments), today))
    return {
        "limit": HEAVY,
        "weeks": [
            {
                "monday": one.monday,
                "most": one.most,
                "heavy": one.heavy,
                "full": [{"enrolment": enrolments[of], "number": number} for of, number in one.full if names_them],
            }
            for one in weeks
        ],
    }


def _dues(people: list[int], today: date) -> Iterator[tuple[int, date]]:
    """The due days of everything that asks these people, in any class."""
    calendar = school_calendar()
    enrolled = Enrolment.objects.filter(person_id__in=people).exclude(group__kind=TeachingGroup.Kind.CASELOAD)
    by_group: dict[int, list[int]] = defaultdict(list)
    for group, enrolment in enrolled.values_list("group_id", "pk"):
        by_group[group].append(enrolment)
    for group, enrolments in sorted(by_group.items()):
        handins = handins_of_group(group)
        of_group = members(group, today, enrolments=enrolments) if handins else []
        for handin in handins:
            for member, answer in zip(of_group, handin.answers(of_group, calendar), strict=True):
                if answer.asked and answer.due.due:
                    yield member.person_id, answer.due.due.day
