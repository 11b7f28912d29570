"""How much is due for students in a week, over all their classes.

Decided here: a week is a calendar week from Monday; each hand-in that asks a student counts once, in the week of that
student's own due date, handed in or not, so that a week is as full as it was planned. From ``HEAVY`` on a week is too
full for a student; the number is this product's, no published rule.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta

HEAVY = 4
"""Hand-ins of one student in one week."""


@dataclass(frozen=True, slots=True)
class LoadedWeek:
    """A week by its Monday: the most hand-ins of one student, and which students have too many."""

    monday: date
    most: int
    full: tuple[tuple[int, int], ...] = ()
    """Those who have too many, each with how many, the most first."""

    @property
    def heavy(self) -> int:
        """How many students have too many."""
        return len(self.full)


def monday_of(day: date) -> date:
    """The first day of the week of a day."""
    return day - timedelta(days=day.weekday())


def loaded_weeks(dues: Iterable[tuple[int, date]]) -> list[LoadedWeek]:
    """Weeks in which anything is due, in order, from the due days (person, day) of all hand-ins.

    Students who have equally many stand in the order in which they come.
    """
    weeks: dict[date, Counter[int]] = defaultdict(Counter)
    for person, day in dues:
        weeks[monday_of(day)][person] += 1
    return [LoadedWeek(monday, max(of.values()), _full(of)) for monday, of in sorted(weeks.items())]


def _full(of: Counter[int]) -> tuple[tuple[int, int], ...]:
    return tuple((person, number) for person, number in of.most_common() if number >= HEAVY)
