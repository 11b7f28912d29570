"""How a hand-in stands in one portfolio, as its student sees it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from datetime import date
from typing import Any

from coatpeg.core.handins.again import again_until_due, has_come_due, may_take_back
from coatpeg.core.handins.asking import is_closed
from coatpeg.core.handins.worklist import to_do
from coatpeg.core.outlines.filling import PocketKind, chips
from coatpeg.core.portfolios.log_columns import log_from_data
from coatpeg.core.portfolios.log_rows import missing
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.asked.files import of_handins
from coatpeg.handins.board.situation import Situation, facts_in
from coatpeg.handins.lines import due_data, standing_data, submissions_by_handin
from coatpeg.handins.models import HandIn
from coatpeg.outlines.reading import PocketOutline, chip_data
from coatpeg.people.models import Enrolment
from coatpeg.portfolios.counting import NO_CONTENT
from coatpeg.portfolios.models import LogRow
from coatpeg.sharing.finding import number_in


def handins_data(view: Situation, handins: Iterable[AskedHandIn]) -> list[dict[str, Any]]:
    """Hand-ins as their student sees them, each with all their submissions and what it still wants.

    Three queries, however many they are; one more where a log has rows that are not finished, and one for files.
    """
    shown = list(handins)
    enrolment = view.members[0].enrolment_id
    submissions = submissions_by_handin(enrolment, [one.id for one in shown])
    said = _said(view, shown)
    waiting = [one for one in shown if waits(view, one)]
    together = _together(view, shown)
    wanting = _wanting(view, frozenset().union(*(one.pockets for one in waiting)))
    return [
        {
            **_handin(view, one, submissions.get(one.id, []), wanting if one in waiting else {}),
            **said[one.id],
            "together": together.get(one.id, 0),
        }
        for one in shown
    ]


def _said(view: Situation, handins: Sequence[AskedHandIn]) -> dict[int, dict[str, Any]]:
    """What each says to its students now, with its files, and whether what is handed in can be taken back."""
    ids = [one.id for one in handins]
    columns = ("pk", "files", "directions", "model_answer", "model_from", "rubric", "take_back")
    rows = list(HandIn.objects.filter(pk__in=ids).values_list(*columns))
    stood = {pk: said for pk, _, *said in rows}
    with_files = {pk for pk, file, *_ in rows if file is not None}
    files = of_handins(with_files) if with_files else {}
    found = {}
    for one in handins:
        # One that was deleted in this very moment says nothing more.
        directions, model, since, rubric, take_back = stood.get(one.id, ("", "", None, {}, False))
        due = view.dues[view.members[0].enrolment_id, one.id].moment
        closed = is_closed(one.asked, view.calendar, view.now)
        found[one.id] = {
            "directions": directions,
            "files": files.get(one.id, []),
            "model_answer": model if since and since <= view.today else "",
            "rubric": rubric or None,
            "take_back": may_take_back(take_back, due, view.now, closed=closed),
        }
    return found


def _together(view: Situation, handins: Iterable[AskedHandIn]) -> dict[int, int]:
    """For how many one press hands in, by hand-in, where it is for several."""
    found = {}
    kinds = {pocket.id: pocket.company for pocket in view.outline}
    for one in handins:
        by = {kinds.get(pocket) for pocket in one.pockets}
        company = by.pop() if len(by) == 1 else None
        if company:
            enrolment = Enrolment.objects.get(pk=view.members[0].enrolment_id)
            found[one.id] = number_in(enrolment, company, view.today)
    return {pk: number for pk, number in found.items() if number > 1}


def waits(view: Situation, handin: AskedHandIn) -> bool:
    """Whether the one student of the view still has to hand this in, and can."""
    standing = view.standings[view.members[0].enrolment_id, handin.id]
    return to_do(standing) and not is_closed(handin.asked, view.calendar, view.now)


def _due_in(view: Situation, day: date) -> int | None:
    """School days from today to a due day: 0 today; None where it has passed, or no school day lies before it."""
    number = view.calendar.between(view.today, day)
    return number if day == view.today or (day > view.today and number) else None


def _wanting(view: Situation, collected: frozenset[int]) -> dict[int, dict[str, Any]]:
    """What is still wanted in each pocket where anything is: chips, and the columns of rows that are not finished."""
    member = view.members[0]
    unfinished = _unfinished(view, collected)
    found = {}
    for pocket in view.outline:
        if pocket.id in collected:
            content = view.contents.get((member.enrolment_id, pocket.id), NO_CONTENT)
            lacking = [one for one in chips(view.wanted(member, pocket), content.pieces) if not one.met]
            rows, columns = unfinished.get(pocket.id, (0, []))
            if lacking or rows:
                said = {"chips": chip_data(lacking), "rows": rows, "columns": columns}
                found[pocket.id] = {"id": pocket.id, "title": pocket.title, **said}
    return found


def _unfinished(view: Situation, collected: frozenset[int]) -> dict[int, tuple[int, list[str]]]:
    """Of logs among these pockets: how many rows are not finished, and the headings still to be written in them."""
    enrolment = view.members[0].enrolment_id
    logs = [
        pocket.id
        for pocket in view.outline
        if pocket.id in collected
        and pocket.kind is PocketKind.LOG
        and any(not one.counts.words for one in view.contents.get((enrolment, pocket.id), NO_CONTENT).pieces)
    ]
    if not logs:
        return {}
    rows = LogRow.objects.filter(
        portfolio__enrolment=enrolment, pocket__in=logs, complete=False, removed_at=None, of=None
    ).select_related("pocket")
    found: dict[int, tuple[int, list[str]]] = {}
    for row in rows:
        count, columns = found.get(row.pocket_id, (0, []))
        lacking = missing(log_from_data(row.pocket.log).columns, row.values)
        found[row.pocket_id] = (count + 1, [*columns, *(one for one in lacking if one not in columns)])
    return found


def _then(pocket: PocketOutline, held: bool, *, stays_open: bool, since_last: bool) -> str:
    """What becomes of a pocket as it is handed in: its rows or all of it are locked, or it stays as it is."""
    if since_last and pocket.kind is PocketKind.LOG and not stays_open:
        return "new_rows"
    if held:
        return "held"
    if stays_open:
        return "open"
    return "rows" if pocket.kind is PocketKind.LOG else "locked"


def _handin(
    view: Situation, handin: AskedHandIn, submissions: list[dict[str, Any]], wanting: Mapping[int, dict[str, Any]]
) -> dict[str, Any]:
    enrolment = view.members[0].enrolment_id
    due = view.dues[enrolment, handin.id]
    closed = is_closed(handin.asked, view.calendar, view.now)
    standing = [one for one in submissions if not one["voided_at"]]
    left_open = not closed and bool(standing) and standing[-1]["left_open"]
    stays_open = handin.again and not has_come_due(due.moment, view.now)
    return {
        "id": handin.id,
        "title": handin.title,
        "points": float(handin.points) if handin.points is not None else None,
        "opens": handin.asked.opens,
        "closes": handin.asked.closes.day if handin.asked.closes else None,
        "closes_time": handin.asked.closes.at if handin.asked.closes else None,
        "closed": closed,
        "again": left_open
        and again_until_due(handin.again, facts_in(view, enrolment, handin.id), due.moment, view.now),
        "stays_open": stays_open,
        **standing_data(view.standings[enrolment, handin.id]),
        **due_data(due),
        "due_in": _due_in(view, due.due.day) if due.due else None,
        "due_again": facts_in(view, enrolment, handin.id).due_again,
        "count": facts_in(view, enrolment, handin.id).submissions,
        "pockets": [
            {
                "id": pocket.id,
                "title": pocket.title,
                "then": _then(
                    pocket, (enrolment, pocket.id) in view.frozen, stays_open=stays_open, since_last=handin.since_last
                ),
            }
            for pocket in view.outline
            if pocket.id in handin.pockets
        ],
        "wanting": [wanting[pocket.id] for pocket in view.outline if pocket.id in handin.pockets & wanting.keys()],
        "submissions": submissions,
    }
