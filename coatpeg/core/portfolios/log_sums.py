"""A log added up: rows and sums over all, per week and per choice; how far its target is.

Sums are exact decimal arithmetic. A week begins on Monday; weeks between the first and the last row that have no
row stand there with nothing in them, as long as they are a year at most. Rows that are not complete count in no sum.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from decimal import Decimal

from coatpeg.core.people.names import search_key
from coatpeg.core.portfolios.log_columns import ColumnType, LogPlan
from coatpeg.core.portfolios.log_rows import Value

MOST_WEEKS = 60
WEEK = timedelta(days=7)
Row = Mapping[str, Value]


@dataclass
class Added:
    """How many rows, and the sums of the number columns by key."""

    rows: int = 0
    sums: dict[str, Decimal] = field(default_factory=dict)

    def add(self, plan: LogPlan, row: Row) -> None:
        """Count one row in."""
        self.rows += 1
        for column in plan.numbers:
            if column.key in row:
                self.sums[column.key] = self.sums.get(column.key, Decimal()) + Decimal(str(row[column.key]))

    def of(self, column: str) -> Decimal:
        """The sum of a column; of none, the number of rows."""
        return self.sums.get(column, Decimal()) if column else Decimal(self.rows)


@dataclass(frozen=True)
class Point:
    """A week of the target's line: what was reached in it, or (over all) up to its end."""

    monday: date
    value: Decimal


@dataclass(frozen=True)
class Sums:
    """A whole log added up; ``choices`` is by (column key, choice)."""

    total: Added
    weeks: dict[date, Added]
    choices: dict[tuple[str, str], Added]
    line: tuple[Point, ...]
    """For the target; empty where there is none, or no dates."""


def week_of(plan: LogPlan, row: Row) -> date | None:
    """The Monday of a row's week; None where it has no date."""
    column = plan.date_column
    value = row.get(column.key) if column else None
    if not isinstance(value, str):
        return None
    day = date.fromisoformat(value)
    return day - timedelta(days=day.weekday())


def added(plan: LogPlan, rows: Iterable[Row]) -> Sums:
    """Add up the complete rows of a log."""
    total = Added()
    weeks: dict[date, Added] = defaultdict(Added)
    of_choice = [one for one in plan.columns if one.type is ColumnType.CHOICE]
    choices = {(column.key, choice): Added() for column in of_choice for choice in column.choices}
    for row in rows:
        total.add(plan, row)
        monday = week_of(plan, row)
        if monday is not None:
            weeks[monday].add(plan, row)
        for column in of_choice:
            if column.key in row:
                choices.setdefault((column.key, str(row[column.key])), Added()).add(plan, row)
    whole = _with_empty(weeks)
    return Sums(total, whole, choices, _line(plan, whole))


def _with_empty(weeks: Mapping[date, Added]) -> dict[date, Added]:
    """Weeks in their order, with the empty ones between."""
    if not weeks:
        return {}
    first, last = min(weeks), max(weeks)
    number = (last - first).days // 7 + 1
    if number > MOST_WEEKS:
        return dict(sorted(weeks.items()))
    return {monday: weeks.get(monday, Added()) for monday in (first + WEEK * place for place in range(number))}


def _line(plan: LogPlan, weeks: Mapping[date, Added]) -> tuple[Point, ...]:
    if plan.target is None:
        return ()
    points, so_far = [], Decimal()
    for monday, week in weeks.items():
        value = week.of(plan.target.column)
        so_far += value
        points.append(Point(monday, value if plan.target.each_week else so_far))
    return tuple(points)


def ordered(plan: LogPlan, rows: Sequence[tuple[int, Row]]) -> list[int]:
    """The ids of rows in the log's order: by its column, rows without a value last, equal ones as they were written.

    Numbers by size, dates by day, choices as they are listed, texts as a dictionary has them without case and accents.
    """
    column = plan.column(plan.order) or plan.date_column
    if column is None:
        found = [row_id for row_id, _ in rows]
        return found[::-1] if plan.newest_first else found

    def key(value: Value) -> tuple[Decimal, str]:
        if column.type is ColumnType.NUMBER:
            return Decimal(str(value)), ""
        if column.type is ColumnType.CHOICE:
            known = value in column.choices
            return Decimal(column.choices.index(str(value)) if known else len(column.choices)), str(value)
        if isinstance(value, (bool, int)):
            return Decimal(int(value)), ""
        return Decimal(), search_key(value) if column.type is not ColumnType.DATE else value

    having = [(row_id, key(row[column.key])) for row_id, row in rows if column.key in row]
    having.sort(key=lambda one: one[1], reverse=plan.newest_first)
    return [row_id for row_id, _ in having] + [row_id for row_id, row in rows if column.key not in row]
