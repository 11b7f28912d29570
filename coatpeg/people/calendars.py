"""The school's calendar as the core takes it."""

from __future__ import annotations

from functools import lru_cache

from coatpeg.core.calendar import MONDAY_TO_FRIDAY, SchoolCalendar, Term, Week
from coatpeg.people import models


def school_calendar() -> SchoolCalendar:
    """Terms, weekdays, non-school days and zone: one query, three more after the calendar was changed.

    What was read is kept in this process under the school's ``calendar_key``, which every change of the calendar
    makes anew; so no process goes on with an old one.
    """
    school = models.School.objects.only("zone", "weekdays", "calendar_key").first()
    if school is None:
        return SchoolCalendar()
    return _calendar(school.calendar_key, school.zone, frozenset(school.weekdays) or MONDAY_TO_FRIDAY)


def class_weeks(group_id: int, calendar: SchoolCalendar) -> tuple[Week, ...]:
    """The calendar weeks of a class's time: one query."""
    group = models.TeachingGroup.objects.only("first", "last").get(pk=group_id)
    return calendar.weeks(Term("", group.first, group.last))


@lru_cache(maxsize=4)
def _calendar(calendar_key: str, zone: str, weekdays: frozenset[int]) -> SchoolCalendar:
    return SchoolCalendar(
        terms=tuple(Term(term.name, term.first, term.last) for term in models.Term.objects.all()),
        weekdays=weekdays,
        days_off=dict(models.NonSchoolDay.objects.values_list("day", "name")),
        zone=zone,
    )
