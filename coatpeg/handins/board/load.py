"""How much is due for the students of a class in each week, over all their classes: numbers only."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from datetime import date, datetime
from typing import Any

from coatpeg.core.handins.load import HEAVY, loaded_weeks
from coatpeg.core.policy import Action
from coatpeg.handins.asked.asking import handins_of_group
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person, TeachingGroup
from coatpeg.people.rosters import members


def load_of(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The weeks of a class's students who are in it today; statements grow with the number of their classes."""
    require_in_group(person, Action.SEE_HANDINS, group_id)
    today = school_calendar().local_day(now)
    here = [one.person_id for one in members(group_id, today) if one.student.is_enrolled(today)]
    weeks = loaded_weeks(_dues(here, today))
    return {
        "limit": HEAVY,
        "weeks": [{"monday": one.monday, "most": one.most, "heavy": one.heavy} for one in weeks],
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
