"""School days and the weeks of a term.

Source of the rules: the product's *Calendar* section. A school day is a configured weekday inside a
term that is not a non-school day. Decided here: days before the first term and between terms are
not school days; after the last configured term plain weekdays count (``beyond`` says so, staff are
told); with no term configured at all every day is beyond.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, time, timedelta
from functools import cached_property
from zoneinfo import ZoneInfo

MONDAY_TO_FRIDAY = frozenset(range(5))
ONE_DAY = timedelta(days=1)


@dataclass(frozen=True, slots=True)
class Span:
    """From–to, both included; ``last`` None means open-ended."""

    first: date
    last: date | None = None

    def holds(self, day: date) -> bool:
        """Whether ``day`` lies in the span."""
        return self.first <= day and (self.last is None or day <= self.last)


@dataclass(frozen=True)
class Term:
    """A term with both its days included."""

    name: str
    first: date
    last: date


@dataclass(frozen=True)
class Week:
    """One week of a term as the rail shows it: its number (from 1), its Monday, and whether it has school."""

    number: int
    monday: date
    school_days: int


@dataclass(frozen=True)
class SchoolCalendar:
    """Terms, weekdays (Monday is 0) and non-school days with their names, in one time zone."""

    terms: tuple[Term, ...] = ()
    weekdays: frozenset[int] = MONDAY_TO_FRIDAY
    days_off: Mapping[date, str] = field(default_factory=dict)
    zone: str = "UTC"

    @cached_property
    def zoneinfo(self) -> ZoneInfo:
        """The zone in which all the school's dates are meant."""
        return ZoneInfo(self.zone)

    @cached_property
    def _days(self) -> list[int]:
        """Ordinals of all school days inside the configured terms, ascending."""
        found = {
            ordinal
            for term in self.terms
            for ordinal in range(term.first.toordinal(), term.last.toordinal() + 1)
            if (ordinal + 6) % 7 in self.weekdays
        }
        return sorted(found - {day.toordinal() for day in self.days_off})

    @cached_property
    def _end(self) -> int:
        """Ordinal of the last configured day; 0 where no term is configured."""
        return max((term.last.toordinal() for term in self.terms), default=0)

    def beyond(self, day: date) -> bool:
        """True after the last configured term, where plain weekdays are counted."""
        return day.toordinal() > self._end

    def is_school_day(self, day: date) -> bool:
        """Whether there is school on ``day``."""
        ordinal = day.toordinal()
        if ordinal > self._end:
            return day.weekday() in self.weekdays and day not in self.days_off
        place = bisect_left(self._days, ordinal)
        return place < len(self._days) and self._days[place] == ordinal

    def after(self, day: date, count: int) -> date:
        """The ``count``-th school day after ``day``; ``day`` itself for 0. ``count`` is not negative."""
        if count < 0:
            raise ValueError("count must not be negative")
        if count == 0:
            return day
        place = bisect_right(self._days, day.toordinal()) + count - 1
        if place < len(self._days):
            return date.fromordinal(self._days[place])
        left = place - len(self._days) + 1
        current = date.fromordinal(max(self._end, day.toordinal()))
        if not self.weekdays:
            raise ValueError("the school week has no days")
        while left:
            current += ONE_DAY
            left -= self.is_school_day(current)
        return current

    def between(self, first: date, last: date) -> int:
        """How many school days ``d`` there are with ``first < d <= last``; 0 where last is not later."""
        if last <= first:
            return 0
        count = bisect_right(self._days, last.toordinal()) - bisect_right(self._days, first.toordinal())
        current = max(first, date.fromordinal(max(self._end, 1)))
        while current < last:
            current += ONE_DAY
            count += self.is_school_day(current)
        return count

    def local_day(self, moment: datetime) -> date:
        """The school's calendar day at a UTC moment."""
        return moment.astimezone(self.zoneinfo).date()

    def term_at(self, day: date) -> Term | None:
        """The term that holds ``day``; else the next one; else the last one; None where there is none."""
        ordered = sorted(self.terms, key=lambda term: term.first)
        for term in ordered:
            if day <= term.last:
                return term
        return ordered[-1] if ordered else None

    def weeks(self, term: Term) -> tuple[Week, ...]:
        """The calendar weeks (Monday first) that touch a term, numbered from 1; weeks without school count too."""
        monday = term.first - timedelta(days=term.first.weekday())
        weeks: list[Week] = []
        while monday <= term.last:
            days = self.between(monday - ONE_DAY, monday + timedelta(days=6))
            weeks.append(Week(len(weeks) + 1, monday, days))
            monday += timedelta(days=7)
        return tuple(weeks)


def moment_of(day: date, at: time | None, zone: ZoneInfo) -> datetime:
    """The UTC moment of a local date with an optional time; a date alone means 23:59:59 of that local day.

    A wall-clock time that a daylight-saving change skips or repeats is read in the student's favour:
    the later of its two readings.
    """
    local = datetime.combine(day, at or time(23, 59, 59), tzinfo=zone)
    return max(local.replace(fold=fold).astimezone(UTC) for fold in (0, 1))


def quick_days(calendar: SchoolCalendar) -> Callable[[datetime], date]:
    """``SchoolCalendar.local_day`` for thousands of UTC moments: worked out once for a quarter of an hour.

    Zones differ from UTC by whole quarters of an hour, so that within one the local day is the same.
    """
    known: dict[tuple[date, int], date] = {}

    def day_of(moment: datetime) -> date:
        key = (moment.date(), moment.hour * 4 + moment.minute // 15)
        found = known.get(key)
        if found is None:
            found = known[key] = calendar.local_day(moment)
        return found

    return day_of
