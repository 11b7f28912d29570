"""Logs as they are read: the rows in their order, added up; frozen with a submission; as CSV."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from datetime import date, datetime
from types import MappingProxyType
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.outlines.filling import Piece, PocketKind
from coatpeg.core.people.csv_text import as_written, neutral
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.log_columns import ColumnType, LogPlan, log_from_data, log_to_data
from coatpeg.core.portfolios.log_rows import Value, missing
from coatpeg.core.portfolios.log_sums import Added, added, ordered
from coatpeg.core.portfolios.texts import Counts
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.models import Person
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.counting import work_in
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import Artefact, LogRow

NOBODY_ELSE: Mapping[int, Mapping[str, Any]] = MappingProxyType({})


def log_data(
    pocket: Pocket,
    rows: Sequence[LogRow],
    held_since: datetime | None,
    by: Mapping[int, Mapping[str, Any]] = NOBODY_ELSE,
) -> dict[str, Any]:
    """A log with its rows in order, its sums and its target's line; ``held_since`` locks the rows that lay there.

    ``by`` says of rows (their ids) that somebody else wrote who that was.
    """
    lines = [
        {
            "id": row.pk,
            "values": row.values,
            "complete": row.complete,
            "locked": held_since is not None and row.placed_at <= held_since,
            "version": row.version,
            "changed_at": row.changed_at,
            "by": by.get(row.pk),
        }
        for row in rows
    ]
    return _shown(log_from_data(pocket.log), lines, _artefacts(pocket, rows))


def _artefacts(pocket: Pocket, rows: Iterable[LogRow]) -> list[dict[str, Any]]:
    """The artefacts that rows name: one query where a column holds artefacts, else none."""
    keys = log_from_data(pocket.log).artefact_keys
    ids = {row.values[key] for row in rows for key in keys if key in row.values}
    return [artefact_data(one) for one in Artefact.objects.filter(pk__in=ids).select_related("stored")] if ids else []


def _shown(plan: LogPlan, lines: Sequence[dict[str, Any]], artefacts: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    by_id = {line["id"]: line for line in lines}
    order = ordered(plan, [(line["id"], line["values"]) for line in lines])
    sums = added(plan, [line["values"] for line in lines if line["complete"]])
    return {
        **log_to_data(plan),
        "rows": [
            {**by_id[one], "missing": [] if by_id[one]["complete"] else missing(plan.columns, by_id[one]["values"])}
            for one in order
        ],
        "artefacts": list(artefacts),
        "total": added_data(sums.total),
        "weeks": [{"monday": monday, **added_data(week)} for monday, week in sums.weeks.items()],
        "of_choices": [
            {"column": column, "choice": choice, **added_data(of)} for (column, choice), of in sums.choices.items()
        ],
        "line": [{"monday": point.monday, "value": float(point.value)} for point in sums.line],
    }


def added_data(of: Added) -> dict[str, Any]:
    """Sums as plain data, amounts as decimal text."""
    return {
        "rows": of.rows,
        "sums": [{"column": column, "amount": format(amount, "f")} for column, amount in of.sums.items()],
    }


def frozen_log(pocket: Pocket, rows: Sequence[LogRow], before: Sequence[LogRow] = ()) -> dict[str, Any]:
    """A log as a submission freezes it: columns, rows, and the artefacts they name.

    Of rows that were handed in ``before`` it is only kept how they count towards what is wanted.
    """
    return {
        "plan": log_to_data(log_from_data(pocket.log)),
        "rows": [
            {"id": row.pk, "values": row.values, "version": row.version, **_counting(pocket, row), **_theirs(row)}
            for row in rows
        ],
        "artefacts": _artefacts(pocket, rows),
        **({"before": [_counting(pocket, row) for row in before]} if before else {}),
    }


def _theirs(row: LogRow) -> dict[str, Any]:
    """Whose a row is, of what others wrote: the id of their row."""
    return {"of": row.of_id} if row.of_id is not None else {}


def _counting(pocket: Pocket, row: LogRow) -> dict[str, Any]:
    theirs = {"theirs": True} if pocket.own_part and row.of_id is not None else {}
    return {"complete": row.complete, "week": row.week.isoformat() if row.week else None, **theirs}


def links_in(pocket: Pocket, rows: Iterable[LogRow]) -> Iterator[int]:
    """How many links each row of a log holds."""
    keys = [one.key for one in log_from_data(pocket.log).columns if one.type is ColumnType.LINK]
    return (sum(1 for key in keys if key in row.values) for row in rows)


def frozen_pieces(log: Mapping[str, Any]) -> tuple[Piece, ...]:
    """The rows of a frozen log as the rules see them, those handed in before it too."""
    return tuple(
        Piece(
            Counts(int(row["complete"])),
            week=date.fromisoformat(row["week"]).toordinal() if row["week"] else 0,
            theirs=row.get("theirs", False),
        )
        for row in (*log.get("before", ()), *log["rows"])
    )


def shown_log(log: Mapping[str, Any], by: Mapping[int, Mapping[str, Any]] = NOBODY_ELSE) -> dict[str, Any]:
    """A frozen log to look at: as it was handed in, added up; ``by`` as in ``log_data``."""
    lines = [{**row, "locked": True, "changed_at": None, "by": by.get(row["id"])} for row in log["rows"]]
    return _shown(log_from_data(log["plan"]), lines, log["artefacts"])


def as_csv(person: Person, portfolio_id: int, pocket_id: int) -> tuple[str, str]:
    """A log as CSV with its headings, and the pocket's title; what reads like a formula is made harmless."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    pocket = pockets_of(portfolio.enrolment.group_id).filter(pk=pocket_id, kind=PocketKind.LOG).first()
    if pocket is None:
        raise Gone("There is no such log in this portfolio.", fix="Go back to the pockets.")
    shown = log_data(pocket, work_in(portfolio_id, pocket).rows, None)
    return as_written(_table(log_from_data(pocket.log), shown)), pocket.title


def frozen_rows(log: Mapping[str, Any]) -> list[list[str]]:
    """A frozen log as a table with its headings, in its order; what reads like a formula is made harmless."""
    return _table(log_from_data(log["plan"]), shown_log(log))


def _table(plan: LogPlan, shown: Mapping[str, Any]) -> list[list[str]]:
    titles = {one["id"]: one["title"] for one in shown["artefacts"]}
    heads = [neutral(one.title + (f" ({one.unit})" if one.unit else "")) for one in plan.columns]
    return [
        heads,
        *([_cell(one.type, row["values"].get(one.key), titles) for one in plan.columns] for row in shown["rows"]),
    ]


def _cell(kind: ColumnType, value: Value | None, titles: Mapping[int, str]) -> str:
    """A value as text; a negative number stays one, since no spreadsheet takes it for a formula."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if kind is ColumnType.ARTEFACT:
        return neutral(titles.get(int(value), ""))
    return str(value) if kind is ColumnType.NUMBER else neutral(str(value))
