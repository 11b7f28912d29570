"""A series of hand-ins: the same again every week, or every second one.

Source: the recurrence of RFC 5545 (FREQ=WEEKLY with INTERVAL and UNTIL, the weekday that of the first). Decided here:
what falls on a day without school moves within its calendar week, to the next school day or else the one before; a week
without school has none, and the count of weeks goes on over it.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Invalid

MOST = 40
"""Hand-ins of one series: a school year of weeks."""
DAY = timedelta(days=1)
WEEK = timedelta(days=7)


@dataclass(frozen=True, slots=True)
class Repeat:
    """Every so many weeks (1 or 2), until a day; 0: once for each unit of a section that repeats, to its last one."""

    every: int
    until: date = date.max


@dataclass(frozen=True, slots=True)
class Occurrence:
    """The number of one (from 1), how many weeks it lies after the first, its day, and whether that had to move."""

    number: int
    weeks: int
    day: date
    moved: bool


def in_its_week(day: date, calendar: SchoolCalendar) -> date | None:
    """The day itself where there is school, else the next in its calendar week, else the one before; None for none."""
    monday = day - timedelta(days=day.weekday())
    week = [monday + at * DAY for at in range(7)]
    later = [one for one in week if one >= day and calendar.is_school_day(one)]
    earlier = [one for one in week if one < day and calendar.is_school_day(one)]
    return later[0] if later else earlier[-1] if earlier else None


def occurrences(first: date, repeat: Repeat, calendar: SchoolCalendar) -> list[Occurrence]:
    """The days of a series; the first stays as it was given. ``Invalid`` where it has no day or far too many."""
    if repeat.until < first:
        raise Invalid(
            "The series ends before its first hand-in is due.", where="until", fix="Let it end later, or set it once."
        )
    found = list(_occurrences(first, repeat, calendar))
    if len(found) > MOST:
        raise Invalid(
            f"The series would have {len(found)} hand-ins; {MOST} is the most.",
            where="until",
            fix="Let it end earlier.",
        )
    return found


def _occurrences(first: date, repeat: Repeat, calendar: SchoolCalendar) -> Iterator[Occurrence]:
    yield Occurrence(1, 0, first, False)
    number, weeks = 1, repeat.every
    while first + weeks * WEEK <= repeat.until:
        day = in_its_week(first + weeks * WEEK, calendar)
        if day is not None:
            number += 1
            yield Occurrence(number, weeks, day, day != first + weeks * WEEK)
        weeks += repeat.every


def base_title(title: str, place: int) -> str:
    """A title without the number that it has at its place in a series."""
    return title.strip().removesuffix(f" {place}").strip()
