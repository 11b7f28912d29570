"""Days that can be meant: one far off is a slip, and dates at the ends of the calendar cannot be reckoned with.

Decided here: a day that concerns a class lies within its time and three years on either side; any other day between
1990 and 2199.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date, timedelta

from coatpeg.core.errors import Invalid

EARLIEST, LATEST = date(1990, 1, 1), date(2199, 12, 31)
AROUND = timedelta(days=3 * 366)


def check_days(first: date, last: date, days: Mapping[str, date | None]) -> None:
    """Refuse days (by the field they stand in) far outside the time from ``first`` to ``last``."""
    earliest, latest = first - AROUND, last + AROUND
    for where, day in days.items():
        if day is not None and not earliest <= day <= latest:
            raise Invalid(
                f"{day.day} {day:%b} {day.year} is far outside the time of this class.",
                where=where,
                fix=f"Choose a day from {earliest.year} to {latest.year}.",
            )
