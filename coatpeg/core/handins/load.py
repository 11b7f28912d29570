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
    """A week by its Monday: the most hand-ins of one student, and how many students have too many."""

    monday: date
    most: int
    heavy: int


def loaded_weeks(dues: Iterable[tuple[int, date]]) -> list[LoadedWeek]:
    """Weeks in which anything is due, in order, from the due days (person, day) of all hand-ins."""
    weeks: dict[date, Counter[int]] = defaultdict(Counter)
    for person, day in dues:
        weeks[day - timedelta(days=day.weekday())][person] += 1
    return [
        LoadedWeek(monday, max(of.values()), sum(1 for number in of.values() if number >= HEAVY))
        for monday, of in sorted(weeks.items())
    ]
