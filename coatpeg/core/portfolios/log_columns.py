"""A log as a teacher lays it out: typed columns, a fixed order, an optional target; checked before it is taken.

Decided here: a column's key is made where the column is made and never given to another one, so that values written
under it are found again when a column comes back. A log's rows stand by its first date column, else as they were
written. Rows so many a week need a date column, because the week is the row's own.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from enum import StrEnum
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.portfolios.texts import Length, Measure

MOST_COLUMNS = 20
MOST_CHOICES = 50
LONGEST_HEADING = 60
LONGEST_CHOICE = 60
LONGEST_UNIT = 12
MOST_TARGET = Decimal(10) ** 9
_KEY = re.compile(r"^[a-z0-9-]{1,36}$")


class ColumnType(StrEnum):
    """What a column holds."""

    DATE = "date"
    TEXT = "text"
    LONG_TEXT = "long_text"
    NUMBER = "number"
    CHOICE = "choice"
    LINK = "link"
    ARTEFACT = "artefact"
    YES_NO = "yes_no"


@dataclass(frozen=True, slots=True)
class Column:
    """One column: ``unit`` of a number, ``choices`` to choose from, ``length`` of a long text."""

    key: str
    title: str
    type: ColumnType
    required: bool = False
    unit: str = ""
    choices: tuple[str, ...] = ()
    length: Length | None = None


@dataclass(frozen=True, slots=True)
class Target:
    """An amount to reach in a number column (``column`` empty: in rows), each week or over all."""

    column: str
    amount: Decimal
    each_week: bool = False


@dataclass(frozen=True, slots=True)
class LogPlan:
    """The columns of a log; ``order`` is the key of the column its rows stand by (empty: by date)."""

    columns: tuple[Column, ...] = ()
    order: str = ""
    newest_first: bool = False
    target: Target | None = None

    @property
    def artefact_keys(self) -> tuple[str, ...]:
        """The keys of the columns that hold artefacts."""
        return tuple(one.key for one in self.columns if one.type is ColumnType.ARTEFACT)

    @property
    def date_column(self) -> Column | None:
        """The first column of dates: a row's own day."""
        return next((one for one in self.columns if one.type is ColumnType.DATE), None)

    @property
    def numbers(self) -> tuple[Column, ...]:
        """The columns that have sums."""
        return tuple(one for one in self.columns if one.type is ColumnType.NUMBER)

    def column(self, key: str) -> Column | None:
        """A column by its key."""
        return next((one for one in self.columns if one.key == key), None)

    def checked(self) -> LogPlan:
        """The same, tidied; ``Invalid`` names the column and the fix."""
        if not self.columns:
            raise Invalid("The log has no columns.", where="columns", fix="Add one: what is written down first?")
        if len(self.columns) > MOST_COLUMNS:
            raise Invalid(f"A log has at most {MOST_COLUMNS} columns.", where="columns", fix="Take some away.")
        columns = tuple(_checked_column(one, place) for place, one in enumerate(self.columns, 1))
        _refuse_twice(columns)
        if self.order and self.column(self.order) is None:
            raise Invalid("The column that the rows stand by is gone.", where="order", fix="Choose another one.")
        return LogPlan(columns, self.order, self.newest_first, self._checked_target())

    def _checked_target(self) -> Target | None:
        target = self.target
        if target is None:
            return None
        column = self.column(target.column)
        if target.column and (column is None or column.type is not ColumnType.NUMBER):
            raise Invalid("The target is for a column that has no sum.", where="target", fix="Choose a number column.")
        if not target.amount.is_finite() or not 0 < target.amount <= MOST_TARGET:
            raise Invalid("A target is more than 0.", where="target", fix="Give the amount to reach.")
        if target.each_week and self.date_column is None:
            raise Invalid("A target for each week needs a date.", where="target", fix="Add a column of type date.")
        return target


def _checked_column(column: Column, place: int) -> Column:
    where = f"Column {place}"
    title = " ".join(column.title.split())
    if not title or len(title) > LONGEST_HEADING:
        raise Invalid(
            f"{where} has no heading." if not title else f"The heading of column {place} has {len(title)} characters.",
            where=where,
            fix=f"Give it a heading of at most {LONGEST_HEADING} characters.",
        )
    if not _KEY.match(column.key):
        raise Invalid(f"“{title}” has no usable key.", where=where, fix="Take the column away and add it again.")
    choices = tuple(dict.fromkeys(" ".join(one.split()) for one in column.choices if one.strip()))
    if column.type is ColumnType.CHOICE:
        if not choices or len(choices) > MOST_CHOICES or any(len(one) > LONGEST_CHOICE for one in choices):
            raise Invalid(
                f"“{title}” has nothing to choose from." if not choices else f"The choices of “{title}” are too many.",
                where=where,
                fix=f"Give 1 to {MOST_CHOICES} choices of at most {LONGEST_CHOICE} characters.",
            )
        if len({one.casefold() for one in choices}) < len(choices):
            raise Invalid(f"“{title}” has the same choice twice.", where=where, fix="Take one of them away.")
    unit = " ".join(column.unit.split())
    if len(unit) > LONGEST_UNIT:
        raise Invalid(f"The unit of “{title}” is too long.", where=where, fix=f"At most {LONGEST_UNIT} characters.")
    length = column.length if column.type is ColumnType.LONG_TEXT else None
    if length and (length.least < 1 or (length.most is not None and length.most < length.least)):
        raise Invalid(f"“{title}”: from {length.least} to {length.most} is no length.", where=where, fix="Change it.")
    return Column(
        column.key,
        title,
        column.type,
        column.required,
        unit if column.type is ColumnType.NUMBER else "",
        choices if column.type is ColumnType.CHOICE else (),
        length,
    )


def _refuse_twice(columns: Sequence[Column]) -> None:
    seen: set[str] = set()
    for column in columns:
        for name in (column.title.casefold(), f"\x00{column.key}"):
            if name in seen:
                raise Invalid(
                    f"There are two columns “{column.title}”.", where=column.title, fix="Give one another heading."
                )
            seen.add(name)


def refuse_other_types(before: LogPlan, after: LogPlan, used: frozenset[str]) -> None:
    """Refuse another type for a column that has values already: they would no longer fit.

    ``used`` are the keys under which any student has written.
    """
    for column in after.columns:
        old = before.column(column.key)
        if old is not None and old.type is not column.type and column.key in used:
            raise Invalid(
                f"Students have written in “{old.title}” already.",
                where=column.title,
                fix="Take this column away and add one of the other type: what was written is kept.",
            )


def log_to_data(plan: LogPlan) -> dict[str, Any]:
    """A log's plan as plain data."""
    target = plan.target
    return {
        "columns": [
            {
                "key": one.key,
                "title": one.title,
                "type": one.type.value,
                "required": one.required,
                "unit": one.unit,
                "choices": list(one.choices),
                "measure": one.length.measure.value if one.length else "",
                "least": one.length.least if one.length else 1,
                "most": one.length.most if one.length else None,
            }
            for one in plan.columns
        ],
        "order": plan.order,
        "newest_first": plan.newest_first,
        "target": {"column": target.column, "amount": format(target.amount, "f"), "each_week": target.each_week}
        if target
        else None,
    }


def log_from_data(data: Mapping[str, Any]) -> LogPlan:
    """The reverse of ``log_to_data``; what is not there is not set."""
    target = data.get("target")
    try:
        amount = Decimal(target["amount"]) if target else Decimal()
    except InvalidOperation as error:
        raise Invalid("The target is no number.", where="target", fix="Give the amount to reach.") from error
    return LogPlan(
        tuple(_column_from(one) for one in data.get("columns", ())),
        data.get("order", ""),
        data.get("newest_first", False),
        Target(target["column"], amount, target["each_week"]) if target else None,
    )


def _column_from(data: Mapping[str, Any]) -> Column:
    measure = data.get("measure", "")
    return Column(
        data["key"],
        data["title"],
        ColumnType(data["type"]),
        data.get("required", False),
        data.get("unit", ""),
        tuple(data.get("choices", ())),
        Length(Measure(measure), data.get("least", 1), data.get("most")) if measure else None,
    )
