"""What is written into a log's row, read by the types of its columns; and what a row still lacks.

Decided here: a row is kept as soon as every value in it fits its column; what is required and not there yet makes it
*not complete*, and it does not count. A date is read as 2026-11-05, or day first (5.11.2026, 5/11/2026, 5 Nov 2026).
A number has a point or a comma before its fraction; "1,234" could be either and is asked about. Numbers are decimal:
at most twelve places before and six behind the point (a hundred tonnes in grams, a micrometre in metres).
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal

from coatpeg.core.errors import Invalid
from coatpeg.core.portfolios import incoming, texts
from coatpeg.core.portfolios.log_columns import Column, ColumnType

LONGEST_CELL = 300
LONGEST_LONG_CELL = 5_000
EARLIEST, LATEST = date(1900, 1, 1), date(2199, 12, 31)
_NUMBER = re.compile(r"^[+-]?\d{1,12}([.,]\d{1,6})?$", re.ASCII)
_EITHER = re.compile(r"^[+-]?\d{1,3},\d{3}$", re.ASCII)
_ISO = re.compile(r"^(\d{4})-(\d{1,2})-(\d{1,2})$", re.ASCII)
_DAY_FIRST = re.compile(r"^(\d{1,2})[./](\d{1,2})[./](\d{4})$", re.ASCII)
_NAMED = re.compile(r"^(?:[A-Za-z]{3,9},? )?(\d{1,2})\.? ([A-Za-z]{3})[a-z]*\.? (\d{4})$", re.ASCII)
_MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
_YES, _NO = ("yes", "y", "true", "1", "x"), ("no", "n", "false", "0")

Value = str | bool | int
"""A date as ISO text, a number as decimal text, yes or no as a truth, an artefact by its id, else the text itself."""


@dataclass(frozen=True, slots=True)
class Wrong:
    """A value that does not fit its column."""

    column: str
    what: str
    fix: str


@dataclass(frozen=True, slots=True)
class Judged:
    """A row as it was read: the values that fit, what does not, the headings of what is still missing."""

    values: Mapping[str, Value] = field(default_factory=dict)
    wrong: tuple[Wrong, ...] = ()
    missing: tuple[str, ...] = ()

    @property
    def complete(self) -> bool:
        """Whether the row counts."""
        return not self.wrong and not self.missing and bool(self.values)


def judged(
    columns: Sequence[Column],
    raw: Mapping[str, object],
    artefacts: frozenset[int] = frozenset(),
    kept: Mapping[str, Value] | None = None,
) -> Judged:
    """Read a row, by the keys of its columns. ``artefacts`` are those of the student; ``kept`` is the row as it stood.

    Values under keys that are no column now are kept as they stood, for the day the column comes back; a value that
    stays as it was is not judged anew (its choice may have gone since).
    """
    before = kept or {}
    values = {key: value for key, value in before.items() if all(key != one.key for one in columns)}
    wrong = []
    for column in columns:
        given = raw.get(column.key)
        text = given.strip() if isinstance(given, str) else given
        if text is None or text == "":
            continue
        if column.key in before and text == before[column.key]:
            values[column.key] = before[column.key]
            continue
        try:
            values[column.key] = _read(column, text, artefacts)
        except Invalid as error:
            wrong.append(Wrong(column.key, error.what, error.fix))
    return Judged(values, tuple(wrong), missing(columns, values))


def missing(columns: Sequence[Column], values: Mapping[str, Value]) -> tuple[str, ...]:
    """The headings of what a row still lacks: required and empty, or a long text outside its asked length."""
    return tuple(one.title for one in columns if _lacks(one, values.get(one.key)))


def _lacks(column: Column, value: Value | None) -> bool:
    if value is None:
        return column.required
    return column.length is not None and not texts.within(texts.count(str(value)), column.length)


def _read(column: Column, given: object, artefacts: frozenset[int]) -> Value:
    """One value; ``Invalid`` says what it is instead and what to write."""
    if column.type is ColumnType.ARTEFACT:
        if isinstance(given, bool) or not isinstance(given, int) or given not in artefacts:
            raise Invalid("This artefact is not in your portfolio.", fix="Add a photo or file to the row.")
        return given
    if column.type is ColumnType.YES_NO:
        word = str(given).casefold()
        if word not in (*_YES, *_NO):
            raise Invalid(f"“{_short(given)}” is neither yes nor no.", fix="Write yes or no.")
        return word in _YES
    text = texts.tidy_text(str(given)).strip()
    if column.type is ColumnType.DATE:
        return _date(text).isoformat()
    if column.type is ColumnType.NUMBER:
        return _number(text)
    if column.type is ColumnType.CHOICE:
        return _choice(column, text)
    if column.type is ColumnType.LINK:
        return incoming.check_link(text)
    most = LONGEST_LONG_CELL if column.type is ColumnType.LONG_TEXT else LONGEST_CELL
    if len(text) > most:
        raise Invalid(f"There are {len(text)} characters; {most} is the most.", fix="Shorten it.")
    return text if column.type is ColumnType.LONG_TEXT else " ".join(text.split())


def _short(given: object) -> str:
    text = str(given)
    return text if len(text) <= 40 else text[:39] + "…"


def _date(text: str) -> date:
    if found := _ISO.match(text):
        year, month, day = (int(one) for one in found.groups())
    elif found := _DAY_FIRST.match(text):
        day, month, year = (int(one) for one in found.groups())
    elif (found := _NAMED.match(text)) and found[2].casefold() in _MONTHS:
        day, month, year = int(found[1]), _MONTHS.index(found[2].casefold()) + 1, int(found[3])
    else:
        raise Invalid(f"“{_short(text)}” is not a date.", fix="Write it like 2026-11-05 or 5.11.2026.")
    try:
        read = date(year, month, day)
    except ValueError as error:
        raise Invalid(f"There is no such day as “{_short(text)}”.", fix="Look at the day and the month.") from error
    if not EARLIEST <= read <= LATEST:
        raise Invalid(f"The year {year} cannot be meant.", fix="Write the year with four figures.")
    return read


def _number(text: str) -> str:
    plain = text.replace("−", "-").replace("\u00a0", "").replace(" ", "")
    if _EITHER.match(plain):
        whole, part = plain.split(",")
        raise Invalid(
            f"“{_short(text)}” can be read in two ways.", fix=f"Write {whole}{part} or {whole}.{part}, as you mean it."
        )
    if not _NUMBER.match(plain):
        raise Invalid(
            f"“{_short(text)}” is not a number that can be kept.",
            fix="Write figures only, at most twelve, with a point before the fraction; the unit stands in the heading.",
        )
    value = Decimal(plain.replace(",", "."))
    return format(value.normalize(), "f") if value else "0"


def _choice(column: Column, text: str) -> str:
    for choice in column.choices:
        if choice.casefold() == text.casefold():
            return choice
    offered = ", ".join(column.choices[:6]) + (" …" if len(column.choices) > 6 else "")
    raise Invalid(f"“{_short(text)}” is not one of the choices.", fix=f"Choose one of: {offered}.")
