"""A calendar as a person lays it out, checked before it is taken; and what a change of it does.

Decided here: terms may not overlap (a day would be in two of them); a run of days off is named once and may span
weekends; of two runs that cover the same day the one listed later names it, and neither is refused, because school
calendars from two sources overlap all the time. Days are counted as moved only where the effective due day or the
status of a student changes.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.errors import Invalid

LONGEST_RUN = 120
"""Days in one run of days off. A longer one is a slip of the year, not a holiday."""
LONGEST_TERM = 420
"""Days in one term: a whole school year and some more."""
ONE_DAY = timedelta(days=1)


@dataclass(frozen=True, slots=True)
class DaysOff:
    """A run of days without school, both ends included, with its name."""

    first: date
    last: date
    name: str


@dataclass(frozen=True, slots=True)
class CalendarPlan:
    """What a person fills in: terms, school weekdays (Monday is 0), runs of days off, the zone."""

    terms: tuple[Term, ...]
    weekdays: frozenset[int]
    days_off: tuple[DaysOff, ...]
    zone: str

    def checked(self) -> SchoolCalendar:
        """The calendar; ``Invalid`` names the line that cannot be taken and how to mend it."""
        _check_zone(self.zone)
        if not self.weekdays or not self.weekdays <= set(range(7)):
            raise Invalid("The school week has no days.", where="weekdays", fix="Choose at least one weekday.")
        _check_terms(self.terms)
        return SchoolCalendar(
            terms=tuple(sorted(self.terms, key=lambda term: term.first)),
            weekdays=self.weekdays,
            days_off=_days(self.days_off),
            zone=self.zone,
        )


def _check_zone(zone: str) -> None:
    try:
        ZoneInfo(zone)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        raise Invalid(
            f"“{zone}” is not a time zone.", where="zone", fix="Give its name as Region/City, such as Europe/London."
        ) from None


def _check_terms(terms: Sequence[Term]) -> None:
    for number, term in enumerate(terms):
        where = f"terms.{number}"
        if not term.name.strip():
            raise Invalid("A term has no name.", where=where, fix="Name it, for example “Autumn term”.")
        if term.last < term.first:
            raise Invalid(
                f"“{term.name}” ends on {term.last:%a %-d %b %Y}, before it begins on {term.first:%a %-d %b %Y}.",
                where=where,
                fix="Change one of the two days.",
            )
        if (term.last - term.first).days >= LONGEST_TERM:
            raise Invalid(
                f"“{term.name}” has {(term.last - term.first).days + 1} days; {LONGEST_TERM} is the most.",
                where=where,
                fix="Look at the years of its two days.",
            )
    ordered = sorted(terms, key=lambda term: term.first)
    for before, after in pairwise(ordered):
        if after.first <= before.last:
            raise Invalid(
                f"“{after.name}” begins on {after.first:%a %-d %b %Y}, before “{before.name}” has ended.",
                where=f"terms.{list(terms).index(after)}",
                fix=f"Let it begin after {before.last:%a %-d %b %Y}.",
            )


def _days(runs: Iterable[DaysOff]) -> dict[date, str]:
    """Each day off with its name."""
    found: dict[date, str] = {}
    for number, run in enumerate(runs):
        where, length = f"days_off.{number}", (run.last - run.first).days + 1
        if not run.name.strip():
            raise Invalid(
                f"The day off on {run.first:%a %-d %b} has no name.",
                where=where,
                fix="Name it: students and families read it.",
            )
        if length < 1:
            raise Invalid(
                f"“{run.name}” ends before it begins.", where=where, fix="Change one of the two days, or leave it out."
            )
        if length > LONGEST_RUN:
            raise Invalid(
                f"“{run.name}” has {length} days; {LONGEST_RUN} is the most.",
                where=where,
                fix="Look at the years of its two days.",
            )
        found.update({run.first + timedelta(days=place): run.name.strip() for place in range(length)})
    return found


def runs(days_off: Mapping[date, str], weekdays: frozenset[int]) -> tuple[DaysOff, ...]:
    """Days off as runs: days of one name that only non-school weekdays part stand together."""
    found: list[DaysOff] = []
    for day in sorted(days_off):
        before = found[-1] if found else None
        if before and before.name == days_off[day] and _only_weekend_between(before.last, day, weekdays):
            found[-1] = DaysOff(before.first, day, before.name)
        else:
            found.append(DaysOff(day, day, days_off[day]))
    return tuple(found)


def _only_weekend_between(last: date, day: date, weekdays: frozenset[int]) -> bool:
    between = (last + timedelta(days=place) for place in range(1, (day - last).days))
    return (day - last).days <= 7 and all(one.weekday() not in weekdays for one in between)


@dataclass(frozen=True, slots=True)
class CalendarChange:
    """What a new calendar does to the days: school days that are lost and gained, in order."""

    lost: tuple[date, ...]
    gained: tuple[date, ...]


def compared(before: SchoolCalendar, after: SchoolCalendar) -> CalendarChange:
    """School days lost and gained over all days that either calendar configures."""
    ends = [day for calendar in (before, after) for term in calendar.terms for day in (term.first, term.last)]
    if not ends:
        return CalendarChange((), ())
    first, count = min(ends), (max(ends) - min(ends)).days + 1
    days = [first + timedelta(days=place) for place in range(count)]
    was, then = ([calendar.is_school_day(day) for day in days] for calendar in (before, after))
    return CalendarChange(
        tuple(day for day, old, new in zip(days, was, then, strict=True) if old and not new),
        tuple(day for day, old, new in zip(days, was, then, strict=True) if new and not old),
    )
