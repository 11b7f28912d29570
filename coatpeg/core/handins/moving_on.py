"""Moving the dates of hand-ins on after lost school days.

Decided here: a date moves when it lies on the first lost day or later, each by itself: a hand-in that has opened stays
open while its due date moves. Every moved date is a school day (the *n*-th after it), so one that lay on a day off ends
on a school day; beyond the last term plain weekdays are counted, and those are named.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from coatpeg.core.calendar.school_days import SchoolCalendar

MOST_DAYS = 60
"""School days: about a term."""


class Which(StrEnum):
    """Which date of a hand-in; ``period`` and ``own`` name whose."""

    OPENS = "opens"
    DUE = "due"
    CLOSES = "closes"
    PERIOD = "period"
    OWN = "own"


@dataclass(frozen=True, slots=True)
class Dated:
    """A date of a hand-in: which, whose (a period's or an enrolment's id, else 0), and when."""

    handin: int
    which: Which
    whose: int
    day: date


@dataclass(frozen=True, slots=True)
class MovedDate:
    """A date and where it goes; ``beyond`` is after the last term, ``off`` is a date that lay on no school day."""

    of: Dated
    to: date
    beyond: bool
    off: bool


def moved_on(dates: Iterable[Dated], first: date, days: int, calendar: SchoolCalendar) -> list[MovedDate]:
    """The dates from ``first`` on, each moved by so many school days, in the order of their days."""
    moved = []
    for one in sorted(dates, key=lambda of: (of.day, of.handin, of.which, of.whose)):
        if one.day >= first:
            to = calendar.after(one.day, days)
            moved.append(MovedDate(one, to, calendar.beyond(to), not calendar.is_school_day(one.day)))
    return moved
