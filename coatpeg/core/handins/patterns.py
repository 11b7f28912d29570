"""How work comes in: its curve against the due moment, the days before due, who is usually late, who is behind.

Quartiles are those of the sample by linear interpolation between its values (Hyndman and Fan's type 7, 1996), which is
what spreadsheets and numpy mean by default. Decided here:

* Each student is measured against their own due moment, by the first submission that stands: own dates and extra days
  make nobody late.
* The curve counts, at each whole day before and after due, how many were in by then; it ends where now is.
* Usually late is who came late at least twice and at least every second time; by how much is the median of the whole
  school days of the late ones.
* Behind is who has filled less than the class's median as of today by more than a quarter of the whole. Of whom nothing
  is wanted yet, nobody is behind.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import timedelta
from statistics import median, quantiles

DAY = timedelta(days=1)
DAYS_BEFORE, DAYS_AFTER = 14, 7
"""How far a curve looks, in days: two weeks before due hold nearly all work, a week after it the late one."""
BEHIND = 0.25


@dataclass(frozen=True, slots=True)
class Quartiles:
    """The lower quartile, the median and the upper one."""

    low: float
    middle: float
    high: float


def quartiles(values: Sequence[float]) -> Quartiles | None:
    """The quartiles of a sample; None of an empty one."""
    if not values:
        return None
    if len(values) == 1:
        return Quartiles(values[0], values[0], values[0])
    low, middle, high = quantiles(values, n=4, method="inclusive")
    return Quartiles(low, middle, high)


def days_before(before: timedelta) -> float:
    """A time before due in days; negative after it."""
    return before / DAY


def curve(before: Iterable[timedelta], since_due: timedelta) -> list[tuple[int, int]]:
    """How many were in by each whole day: (days after due, negative before it; how many).

    ``before`` are the times before due at which work came; ``since_due`` is how long ago it was due (negative: it is
    due yet), beyond which nothing can be said.
    """
    came = sorted(-one for one in before)
    last = min(DAYS_AFTER, math.floor(since_due / DAY))
    found, at = [], 0
    for day in range(-DAYS_BEFORE, last + 1):
        while at < len(came) and came[at] <= day * DAY:
            at += 1
        found.append((day, at))
    return found


@dataclass(frozen=True, slots=True)
class Lateness:
    """How often somebody came late, of how many times, and by how many school days as a rule."""

    late: int
    of: int
    school_days: float

    @property
    def usual(self) -> bool:
        """Whether it is usual rather than once."""
        return self.late >= 2 and 2 * self.late >= self.of


def lateness(came: Iterable[tuple[bool, int]]) -> Lateness:
    """From all that came of one student: whether each was late, and by how many school days."""
    all_of = list(came)
    late = [days for is_late, days in all_of if is_late]
    return Lateness(len(late), len(all_of), float(median(late)) if late else 0.0)


def share(met: int, wanted: int) -> float | None:
    """How much of what is wanted is there, 0 to 1; None where nothing is wanted."""
    return met / wanted if wanted else None


def median_share(shares: Iterable[float | None]) -> float | None:
    """The class's median of those of whom something is wanted."""
    known = [one for one in shares if one is not None]
    return float(median(known)) if known else None


def is_behind(own: float | None, of_class: float | None) -> bool:
    """Whether somebody has filled clearly less than their class."""
    return own is not None and of_class is not None and of_class - own > BEHIND
