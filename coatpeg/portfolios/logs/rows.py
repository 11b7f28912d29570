"""What a student does in a log: write a row, change it, take it out, bring it back, paste many.

A hand-in's hold locks the rows that lay there when it was taken; new rows stay possible. Decided here: a row brought
back counts as put there anew; a pasted row that stands there already with the same values is left out.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.core.files.base import File

from coatpeg.core.errors import Gone, Invalid, Refused, Stale
from coatpeg.core.handins.snapshots import digest
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.people.csv_text import read_cells
from coatpeg.core.portfolios import incoming
from coatpeg.core.portfolios.log_columns import Column, ColumnType, LogPlan, log_from_data
from coatpeg.core.portfolios.log_rows import Judged, judged
from coatpeg.core.portfolios.log_sums import week_of
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Person
from coatpeg.portfolios import counting
from coatpeg.portfolios.artefacts import artefact_of, keep_file
from coatpeg.portfolios.models import Artefact, LogRow, Portfolio, StandingHold
from coatpeg.portfolios.writing import Place, refuse_long_gone, refuse_theirs, writing

MOST_ROWS = 2_000
"""In one log of one student: a row on every day for five years."""
MOST_PASTED = 500
LONGEST_PASTE = 500_000


def add_row(person: Person, portfolio_id: int, pocket_id: int, raw: Mapping[str, Any], now: datetime) -> LogRow:
    """Write a new row; ``raw`` is by column key. ``Invalid`` names every value that does not fit."""
    with writing(person, portfolio_id, pocket_id, now) as place:
        plan = _plan(place.pocket)
        read = _fitting(plan, raw, place.portfolio)
        _refuse_more(place, 1)
        row = _made(place, plan, read)
        row.save()
        _after(place, "row_added", row)
        return row


def _plan(pocket: Pocket) -> LogPlan:
    if pocket.kind != PocketKind.LOG:
        raise Invalid(f"“{pocket.title}” is not a log.", where=pocket.title, fix="Add an artefact or a text instead.")
    return log_from_data(pocket.log)


def _fitting(plan: LogPlan, raw: Mapping[str, Any], portfolio: Portfolio, kept: LogRow | None = None) -> Judged:
    """A row that can be kept, else ``Invalid`` with what is wrong, by column."""
    read = judged(plan.columns, raw, _artefacts(plan, raw, portfolio), kept.values if kept else None)
    if read.wrong:
        first = read.wrong[0]
        column = plan.column(first.column)
        raise Invalid(
            first.what,
            where=column.title if column else "",
            fix=first.fix,
            more={"wrong": [{"column": one.column, "what": one.what, "fix": one.fix} for one in read.wrong]},
        )
    if not any(column.key in read.values for column in plan.columns):
        raise Invalid("There is nothing in this row.", where="row", fix="Write something in it, or take it out.")
    return read


def _artefacts(plan: LogPlan, raw: Mapping[str, Any], portfolio: Portfolio) -> frozenset[int]:
    """Which of the artefacts that a row names are this student's own."""
    keys = plan.artefact_keys
    named = [raw[key] for key in keys if isinstance(raw.get(key), int)]
    if not named:
        return frozenset()
    return frozenset(Artefact.objects.filter(pk__in=named, portfolio=portfolio).values_list("pk", flat=True))


def _refuse_more(place: Place, number: int) -> None:
    here = LogRow.objects.filter(portfolio=place.portfolio, pocket=place.pocket, removed_at=None, of=None)
    if here.count() + number > MOST_ROWS:
        raise Invalid(f"A log has at most {MOST_ROWS} rows.", where=place.pocket.title, fix="Take some out first.")


def _made(place: Place, plan: LogPlan, read: Judged) -> LogRow:
    now = place.doing.now
    row = LogRow(portfolio=place.portfolio, pocket=place.pocket, placed_at=now, changed_at=now)
    _take(row, plan, read)
    return row


def _take(row: LogRow, plan: LogPlan, read: Judged) -> None:
    row.values, row.complete, row.week = dict(read.values), read.complete, week_of(plan, read.values)


def _after(place: Place, verb: str, row: LogRow) -> None:
    counting.refresh(place.portfolio, place.pocket, place.doing.now)
    place.record(verb, row=row.pk, version=row.version, values=digest(row.values))


def change_row(person: Person, row_id: int, raw: Mapping[str, Any], version: int, now: datetime) -> LogRow:
    """Write other values into a row over the version its writer saw; the same values change nothing."""
    named = _named(row_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        row = _unlocked(place, row_id)
        if row.removed_at is not None:
            raise Gone("This row was taken out.", fix="Bring it back to change it.")
        plan = _plan(place.pocket)
        read = _fitting(plan, raw, place.portfolio, row)
        if read.values == row.values:
            return row
        if version != row.version:
            raise Stale(
                "This row was changed somewhere else meanwhile.",
                where="row",
                fix="Look at what stands there now; then write yours again.",
                more={"values": row.values, "version": row.version},
            )
        _take(row, plan, read)
        row.version, row.changed_at = row.version + 1, now
        row.save()
        _after(place, "row_changed", row)
        return row


def _named(row_id: int) -> LogRow:
    found = LogRow.objects.filter(pk=row_id).first()
    if found is None:
        raise Gone("There is no such row.", fix="Go back to the log.")
    return found


def _unlocked(place: Place, row_id: int) -> LogRow:
    """A row as it stands, refused where it was handed in and that stands."""
    row = LogRow.objects.get(pk=row_id)
    refuse_theirs(row)
    hold = (
        StandingHold.objects.filter(portfolio=place.portfolio, pocket=place.pocket, since__gte=row.placed_at)
        .order_by("since")
        .first()
    )
    if hold is not None and row.removed_at is None:
        raise Refused(
            f"This row is locked: it was handed in for “{hold.title}”.",
            where=place.pocket.title,
            fix="You can write new rows. It opens again if it is sent back.",
        )
    return row


def remove_row(person: Person, row_id: int, now: datetime) -> LogRow:
    """Take a row out; it can be brought back."""
    return _set_removed(person, row_id, now, removed=True)


def restore_row(person: Person, row_id: int, now: datetime) -> LogRow:
    """Bring a row back."""
    return _set_removed(person, row_id, now, removed=False)


def _set_removed(person: Person, row_id: int, now: datetime, *, removed: bool) -> LogRow:
    named = _named(row_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        row = _unlocked(place, row_id)
        if (row.removed_at is not None) == removed:
            return row
        if not removed:
            refuse_long_gone(row.removed_at, now)
            _refuse_more(place, 1)
            row.placed_at = now
        row.removed_at = now if removed else None
        row.save()
        _after(place, "row_removed" if removed else "row_restored", row)
        return row


def keep_row_file(
    person: Person, portfolio_id: int, pocket_id: int, content: File[Any], name: str, now: datetime
) -> tuple[Artefact, str]:
    """Take in a picture or file for a row; returns the artefact and a note about its name (or "")."""
    title, note = incoming.tidy_title(name)
    kept = keep_file(person, portfolio_id, content, title)
    with writing(person, portfolio_id, pocket_id, now) as place:
        plan = _plan(place.pocket)
        if all(one.type is not ColumnType.ARTEFACT for one in plan.columns):
            raise Invalid("This log has no column for artefacts.", where=place.pocket.title, fix="Write it as text.")
        artefact = artefact_of(place, kept, title)
        place.record("row_artefact_kept", artefact=artefact.pk, came=kept.came_sha256, kept=kept.stored.sha256)
        return artefact, note


@dataclass(frozen=True, slots=True)
class PastedLine:
    """A pasted line as it was read: its cells, what is wrong or still missing, whether it stands there already."""

    line: int
    cells: tuple[str, ...]
    read: Judged
    here: bool


@dataclass(frozen=True, slots=True)
class Pasted:
    """Pasted rows: headings in the order of their cells, the lines, and how many were added."""

    headings: tuple[str, ...]
    lines: tuple[PastedLine, ...]
    added: int


def paste_rows(person: Person, portfolio_id: int, pocket_id: int, text: str, now: datetime, *, apply: bool) -> Pasted:
    """Read rows copied from a spreadsheet; with ``apply`` add those that fit. One bad line never blocks the others."""
    with writing(person, portfolio_id, pocket_id, now) as place:
        plan = _plan(place.pocket)
        columns, table = _read(plan, text)
        standing = LogRow.objects.filter(portfolio=place.portfolio, pocket=place.pocket, removed_at=None)
        seen = {digest(values) for values in standing.values_list("values", flat=True)}
        lines, good = [], []
        for number, cells in table:
            read = judged(plan.columns, {one.key: cell for one, cell in zip(columns, cells, strict=False)})
            here = not read.wrong and digest(dict(read.values)) in seen
            lines.append(PastedLine(number, tuple(cells), read, here))
            if not read.wrong and not here and read.values:
                seen.add(digest(dict(read.values)))
                good.append(read)
        headings = tuple(one.title for one in columns)
        if not apply or not good:
            return Pasted(headings, tuple(lines), 0 if apply else len(good))
        _refuse_more(place, len(good))
        LogRow.objects.bulk_create(_made(place, plan, read) for read in good)
        counting.refresh(place.portfolio, place.pocket, now)
        place.record("rows_pasted", rows=len(good), values=digest([dict(read.values) for read in good]))
        return Pasted(headings, tuple(lines), len(good))


def _read(plan: LogPlan, text: str) -> tuple[list[Column], list[tuple[int, list[str]]]]:
    """The columns that pasted cells belong to, by their heading else in order, and the lines with their numbers."""
    if len(text) > LONGEST_PASTE:
        raise Invalid(f"{len(text)} characters are more than {LONGEST_PASTE}.", where="text", fix="Paste less.")
    writable = [one for one in plan.columns if one.type is not ColumnType.ARTEFACT]
    cells = [[cell.strip() for cell in row] for row in read_cells(text, _separator(text, len(writable)))]
    table = [(number, row) for number, row in enumerate(cells, 1) if any(row)]
    if not table:
        raise Invalid("There is nothing to paste.", where="text", fix="Copy the rows in the spreadsheet first.")
    if len(table) > MOST_PASTED:
        raise Invalid(f"{len(table)} rows are more than {MOST_PASTED} at once.", where="text", fix="Paste less.")
    by_title = {_plain(name): one for one in writable for name in (one.title, f"{one.title} ({one.unit})")}
    named = [by_title.get(_plain(cell)) for cell in table[0][1]]
    if 2 * sum(1 for one in named if one) >= sum(1 for cell in table[0][1] if cell):
        places = [place for place, one in enumerate(named) if one]
        rest = [(number, [row[place] if place < len(row) else "" for place in places]) for number, row in table[1:]]
        return [one for one in named if one], rest
    widest = max(len(row) for _, row in table)
    if widest > len(writable):
        raise Invalid(
            f"The rows have {widest} cells; this log has {len(writable)} columns to write in.",
            where="text",
            fix="Copy the headings too, or only the columns that are here.",
        )
    return writable[:widest], table


def _separator(text: str, columns: int) -> str:
    """A tab as spreadsheets copy; else a semicolon or comma where there is more than one column."""
    if "\t" in text or columns == 1:
        return "\t"
    return ";" if ";" in text else ","


def _plain(heading: str) -> str:
    return " ".join(heading.casefold().split())


def rejudge(pocket: Pocket, before: Mapping[str, Any], now: datetime) -> None:
    """After a change of a log's columns: rows that lacked something may be complete now; none becomes incomplete.

    Only incomplete rows are looked at, and all of them where another column tells a row's day.
    """
    plan, old = log_from_data(pocket.log), log_from_data(before)
    if plan.columns == old.columns:
        return
    rows = LogRow.objects.filter(pocket=pocket, removed_at=None).select_related("portfolio")
    if _day_key(plan) == _day_key(old):
        rows = rows.filter(complete=False)
    touched: dict[int, Portfolio] = {}
    for row in rows:
        read = judged(plan.columns, row.values, kept=row.values)
        complete, week = row.complete or read.complete, week_of(plan, row.values)
        if (complete, week) != (row.complete, row.week):
            row.complete, row.week = complete, week
            row.save(update_fields=["complete", "week"])
            touched[row.portfolio_id] = row.portfolio
    for portfolio in touched.values():
        counting.refresh(portfolio, pocket, now)


def _day_key(plan: LogPlan) -> str:
    return plan.date_column.key if plan.date_column else ""


def used_columns(pocket: Pocket, keys: Sequence[str]) -> frozenset[str]:
    """The keys under which any student has written in a log."""
    rows = LogRow.objects.filter(pocket=pocket)
    return frozenset(key for key in keys if rows.filter(values__has_key=key).exists())
