"""The school's calendar as the core takes it."""

from __future__ import annotations

from coatpeg.core.calendar import MONDAY_TO_FRIDAY, SchoolCalendar, Term
from coatpeg.people import models


def school_calendar() -> SchoolCalendar:
    """Terms, weekdays, non-school days and zone from the database: three queries."""
    school = models.School.objects.first()
    return SchoolCalendar(
        terms=tuple(Term(term.name, term.first, term.last) for term in models.Term.objects.all()),
        weekdays=frozenset(school.weekdays) if school and school.weekdays else MONDAY_TO_FRIDAY,
        days_off=dict(models.NonSchoolDay.objects.values_list("day", "name")),
        zone=school.zone if school else "UTC",
    )
