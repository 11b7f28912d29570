"""The school's calendar as the core takes it."""

from __future__ import annotations

from datetime import date
from functools import lru_cache

from coatpeg.core.calendar.bounds import check_days
from coatpeg.core.calendar.school_days import MONDAY_TO_FRIDAY, SchoolCalendar, Term, Week
from coatpeg.events.prepared import Prepared
from coatpeg.people import models

_SCHOOL = Prepared(lambda: models.School.objects.order_by("pk").values_list("zone", "weekdays", "calendar_key")[:1])


def school_calendar() -> SchoolCalendar:
    """Terms, weekdays, non-school days and zone: one query, three more after the calendar was changed.

    What was read is kept in this process under the school's ``calendar_key``, which every change of the calendar
    makes anew; so no process goes on with an old one.
    """
    for zone, weekdays, calendar_key in _SCHOOL.run():
        return _calendar(calendar_key, zone, frozenset(weekdays) or MONDAY_TO_FRIDAY)
    return SchoolCalendar()


def class_weeks(group_id: int, calendar: SchoolCalendar) -> tuple[Week, ...]:
    """The calendar weeks of a class's time: one query."""
    group = models.TeachingGroup.objects.only("first", "last").get(pk=group_id)
    return calendar.weeks(Term("", group.first, group.last))


def check_class_days(group_id: int, **days: date | None) -> None:
    """Refuse days (by the field they stand in) that cannot be meant in a class: one query, where there is any."""
    if any(days.values()):
        group = models.TeachingGroup.objects.only("first", "last").get(pk=group_id)
        check_days(group.first, group.last, days)


def term_of_class(calendar: SchoolCalendar, group: models.TeachingGroup) -> Term:
    """The first term that a class has a part in; a class outside all terms is a term of its own."""
    found = next((term for term in calendar.terms if term.first <= group.last and group.first <= term.last), None)
    return found or Term(group.name, group.first, group.last)


@lru_cache(maxsize=4)
def _calendar(calendar_key: str, zone: str, weekdays: frozenset[int]) -> SchoolCalendar:
    return SchoolCalendar(
        terms=tuple(Term(term.name, term.first, term.last) for term in models.Term.objects.all()),
        weekdays=weekdays,
        days_off=dict(models.NonSchoolDay.objects.values_list("day", "name")),
        zone=zone,
    )
