"""One log of all students as one table: which rows are shown, in which order, added up per student.

Decided here: words are looked for in the names and in whatever is written, every word somewhere in the row, without
case and accents. By name, a student's rows keep the log's own order. As in one student's log, only complete rows count.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from coatpeg.core.people.names import search_key
from coatpeg.core.portfolios.log_columns import LogPlan
from coatpeg.core.portfolios.log_rows import Value
from coatpeg.core.portfolios.log_sums import Added, ordered

BY_NAME = "student"
"""The order by name. No column has this key for its own: those are made with a number in them, or by hand."""


@dataclass(frozen=True, slots=True)
class Line:
    """A row of the class's log; ``name`` is the student's as it is listed, ``place`` their place in that order."""

    row: int
    student: int
    name: str
    place: int
    values: Mapping[str, Value]
    complete: bool


def found(lines: Iterable[Line], words: str) -> list[Line]:
    """The rows in which every one of these words stands."""
    wanted = search_key(words).split()
    if not wanted:
        return list(lines)
    names: dict[str, str] = {}

    def text_of(line: Line) -> str:
        name = names.setdefault(line.name, search_key(line.name))
        written = (search_key(value) for value in line.values.values() if isinstance(value, str))
        return "\n".join((name, *written))

    return [line for line in lines if all(word in text_of(line) for word in wanted)]


def in_order(plan: LogPlan, lines: Sequence[Line], by: str, *, descending: bool) -> list[Line]:
    """The rows by a column (its key), by name, or (empty) as the log stands, which ``descending`` turns round."""
    if by == BY_NAME:
        own = {row: place for place, row in enumerate(ordered(plan, [(one.row, one.values) for one in lines]))}
        placed = sorted(lines, key=lambda one: own[one.row])
        return sorted(placed, key=lambda one: one.place, reverse=descending)
    first_last = plan.newest_first != descending if not by else descending
    order = replace(plan, order=by or plan.order, newest_first=first_last)
    of_row = {one.row: one for one in lines}
    return [of_row[row] for row in ordered(order, [(one.row, one.values) for one in lines])]


def of_students(plan: LogPlan, lines: Iterable[Line]) -> dict[int, Added]:
    """The complete rows of each student, added up; students without one are not in it."""
    sums: dict[int, Added] = {}
    for line in lines:
        if line.complete:
            sums.setdefault(line.student, Added()).add(plan, line.values)
    return sums
