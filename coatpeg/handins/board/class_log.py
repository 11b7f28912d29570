"""A log over the class: all students' rows of one log in one table, filtered, in order, added up, as a file.

Decided here: it shows the rows of whoever is in the class today or was (their work stays), counts the complete ones,
and gives at most ``PAGE`` rows at a time. What a row names (a picture, a file) is told by its title. The target is each
student's own, so there is no line of it over the class.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from decimal import Decimal
from typing import Any

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import log_over_class
from coatpeg.core.portfolios.log_columns import ColumnType, LogPlan, log_from_data, log_to_data
from coatpeg.core.portfolios.log_over_class import Line
from coatpeg.core.portfolios.log_rows import Value
from coatpeg.core.portfolios.log_sums import added
from coatpeg.files.tables import Cell, Format, written
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import face
from coatpeg.people.models import Person
from coatpeg.people.rosters import Member, members
from coatpeg.portfolios.logs.reading import added_data
from coatpeg.portfolios.models import Artefact, LogRow, Portfolio

PAGE = 200


@dataclass(frozen=True, slots=True)
class Wanted:
    """Which rows, in which order: ``by`` is a column's key, ``student``, or empty for the log's own order."""

    period: str = ""
    student: int | None = None
    words: str = ""
    by: str = ""
    descending: bool = False


@dataclass(frozen=True)
class _Shown:
    pocket: Pocket
    plan: LogPlan
    students: list[Member]
    lines: list[Line]


def class_log(
    person: Person, group_id: int, pocket_id: int, wanted: Wanted, first: int, now: datetime
) -> dict[str, Any]:
    """The rows that are wanted from the ``first`` on, with the sums of all that are wanted."""
    shown = _shown(person, group_id, pocket_id, wanted, now)
    plan = shown.plan
    sums = added(plan, [one.values for one in shown.lines if one.complete])
    of_students = log_over_class.of_students(plan, shown.lines)
    portfolios = dict(Portfolio.objects.filter(enrolment__group_id=group_id).values_list("enrolment_id", "pk"))
    page = shown.lines[first : first + PAGE]
    titles = _titles(plan, page)
    nothing = {"rows": 0, "sums": []}
    return {
        **log_to_data(plan),
        "pocket": {"id": shown.pocket.pk, "title": shown.pocket.title},
        "found": len(shown.lines),
        "rows": [
            {
                "id": one.row,
                "student": one.student,
                "values": {key: titles.get((key, value), value) for key, value in one.values.items()},
                "complete": one.complete,
            }
            for one in page
        ],
        "students": [
            {
                **face(one),
                "portfolio": portfolios[one.enrolment_id],
                **(added_data(of_students[one.enrolment_id]) if one.enrolment_id in of_students else nothing),
            }
            for one in shown.students
            if one.enrolment_id in portfolios
        ],
        "total": added_data(sums.total),
        "weeks": [{"monday": monday, **added_data(week)} for monday, week in sums.weeks.items()],
        "of_choices": [
            {"column": column, "choice": choice, **added_data(of)} for (column, choice), of in sums.choices.items()
        ],
    }


def _shown(person: Person, group_id: int, pocket_id: int, wanted: Wanted, now: datetime) -> _Shown:
    require_in_group(person, Action.SEE_BOARD, group_id)
    pocket = pockets_of(group_id).filter(pk=pocket_id, kind=PocketKind.LOG).first()
    if pocket is None:
        raise Gone("There is no such log in this class.", fix="Choose another pocket.")
    # The target is each student's own.
    plan = replace(log_from_data(pocket.log), target=None)
    if wanted.by not in ("", log_over_class.BY_NAME) and plan.column(wanted.by) is None:
        raise Invalid("The log has no such column.", where="by", fix="Choose one of its headings.")
    everybody = members(group_id, school_calendar().local_day(now))
    students = [one for one in everybody if wanted.period in ("", one.period)]
    places = {one.enrolment_id: (place, one) for place, one in enumerate(students)}
    chosen = [one for one in places if wanted.student in (None, one)]
    rows = LogRow.objects.filter(pocket=pocket, removed_at=None, of=None, portfolio__enrolment__group_id=group_id)
    lines = [
        Line(pk, enrolment, places[enrolment][1].listed, places[enrolment][0], values, complete)
        for pk, enrolment, values, complete in rows.values_list("pk", "portfolio__enrolment_id", "values", "complete")
        if enrolment in places and wanted.student in (None, enrolment)
    ]
    found = log_over_class.found(lines, wanted.words)
    ordered = log_over_class.in_order(plan, found, wanted.by, descending=wanted.descending)
    return _Shown(pocket, plan, [places[one][1] for one in chosen], ordered)


def _titles(plan: LogPlan, lines: Sequence[Line]) -> Mapping[tuple[str, Value], str]:
    """The titles of the artefacts that rows name, by column and id: one query where a column holds artefacts."""
    keys = plan.artefact_keys
    named = {(key, line.values[key]) for line in lines for key in keys if key in line.values}
    if not named:
        return {}
    titles = dict(Artefact.objects.filter(pk__in={value for _, value in named}).values_list("pk", "title"))
    return {(key, value): titles[value] for key, value in named if isinstance(value, int) and value in titles}


def class_log_table(
    person: Person, group_id: int, pocket_id: int, wanted: Wanted, how: Format, now: datetime
) -> tuple[bytes, str]:
    """All rows that are wanted as a file, numbers as numbers; and the log's title."""
    shown = _shown(person, group_id, pocket_id, wanted, now)
    plan, titles = shown.plan, _titles(shown.plan, shown.lines)
    of_student = {one.enrolment_id: one for one in shown.students}
    head: list[Cell] = ["Family name", "Given name", "Period"]
    head += [one.title + (f" ({one.unit})" if one.unit else "") for one in plan.columns]
    rows: list[list[Cell]] = [[*head, "Complete"]]
    for line in shown.lines:
        one = of_student[line.student]
        cells = [_cell(column.type, line.values.get(column.key), titles, column.key) for column in plan.columns]
        rows.append([one.family_name, one.given_name, one.period or "", *cells, "yes" if line.complete else "no"])
    return written(rows, how), shown.pocket.title


def _cell(kind: ColumnType, value: Value | None, titles: Mapping[tuple[str, Value], str], key: str) -> Cell:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if kind is ColumnType.ARTEFACT:
        return titles.get((key, value), "")
    return Decimal(value) if kind is ColumnType.NUMBER else str(value)
