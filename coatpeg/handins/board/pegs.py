"""The pegs: all students × all hand-ins at a glance, the rail, and one cell opened beside."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from datetime import date, datetime
from typing import Any

from coatpeg.core.calendar.school_days import moment_of, quick_days
from coatpeg.core.errors import Gone
from coatpeg.core.handins.asking import DueSource, EffectiveDue, is_closed
from coatpeg.core.handins.standing import ONE_SECOND, Facts, Standing, Status
from coatpeg.core.handins.worklist import QUIET_AFTER
from coatpeg.core.outlines.filling import Filled, chips
from coatpeg.core.people.names import search_key
from coatpeg.core.policy import Action
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, facts_in, filled_by_now, last_works, situation
from coatpeg.handins.lines import submissions_of
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import chip_data
from coatpeg.people.access import require_in_group
from coatpeg.people.faces import face
from coatpeg.people.models import Person
from coatpeg.people.rosters import Member
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.counting import work_in
from coatpeg.portfolios.models import Portfolio

COUNTING = {
    "asked": tuple(one for one in Status if one not in (Status.NOT_ASKED, Status.EXCUSED)),
    "in": (Status.HANDED_IN, Status.ACCEPTED, Status.SENT_BACK),
    "to_mark": (Status.HANDED_IN,),
    "accepted": (Status.ACCEPTED,),
    "sent_back": (Status.SENT_BACK,),
}
"""Which statuses each count of a column counts; "in": something was handed in and stands. The board carries it, so that
a page that is told of one changed cell counts as the server does."""


def board(group_id: int, now: datetime, *, agreed: bool) -> tuple[dict[str, Any], datetime]:
    """The whole board as plain data, and until when it stands if nothing happens: its next change, or midnight.

    A fixed number of queries, however many students and hand-ins. ``agreed``: whether who reads it is told that
    something was agreed with learning support.
    """
    view = situation(group_id, now)
    states, rows = _packed(view)
    last = last_works(view)
    changes = [one.changes_at for column in view.columns for one in column.standings if one.changes_at]
    closings = [one.asked.closes.moment(view.calendar) + ONE_SECOND for one in view.handins if one.asked.closes]
    changes += [one for one in closings if one > now]
    changes_at = min(changes, default=None)
    midnight = moment_of(view.today, None, view.calendar.zoneinfo) + ONE_SECOND
    found = {
        **frame(view),
        "students": [
            _row(view, member, list(cells), units, last.get(member.enrolment_id), agreed=agreed)
            for member, cells, units in zip(view.members, rows, filled_by_now(view), strict=True)
        ],
        "states": states,
        "changes_at": changes_at,
        "counting": {name: [status.value for status in of] for name, of in COUNTING.items()},
    }
    return found, min(changes_at or midnight, midnight)


def frame(view: Situation) -> dict[str, Any]:
    """The term's weeks and the hand-ins with their counts: what the rail shows."""
    # A class that begins next term shows that one's weeks.
    begins = min((member.student.enrolled.first for member in view.members), default=view.today)
    term = view.calendar.term_at(max(view.today, begins))
    weeks = view.calendar.weeks(term) if term else ()
    sections: dict[str, set[int]] = {}
    for pocket in view.outline:
        if pocket.retired:
            continue
        sections.setdefault(pocket.section, set()).add(pocket.id)
    return {
        "today": view.today,
        "term": term.name if term else "",
        "weeks": [{"number": week.number, "monday": week.monday, "school_days": week.school_days} for week in weeks],
        "handins": [
            _column(view, handin, column.standings, sections)
            for handin, column in zip(view.handins, view.columns, strict=True)
        ],
        "sections": list(sections),
        "periods": sorted({member.period for member in view.members if member.period}),
        "groups": sorted({name for member in view.members for name in member.groups}),
    }


def _column(
    view: Situation, handin: AskedHandIn, standings: Sequence[Standing], sections: Mapping[str, set[int]]
) -> dict[str, Any]:
    counts = Counter(one.status for one in standings)
    overdue = sum(1 for one in standings if one.overdue)
    due = handin.asked.due
    return {
        "id": handin.id,
        "title": handin.title,
        "opens": handin.asked.opens,
        "open": view.now >= handin.opening(view.calendar),
        "due": handin.asked.earliest,
        "due_time": due.at if due else None,
        "several_dues": bool(handin.asked.period_dues),
        "points": float(handin.points) if handin.points is not None else None,
        "step": float(handin.step),
        "pockets": handin.pockets,
        "sections": [title for title, of in sections.items() if of & set(handin.pockets)],
        "for_everyone": handin.for_everyone,
        "closes": handin.asked.closes.day if handin.asked.closes else None,
        "closed": is_closed(handin.asked, view.calendar, view.now),
        **counted(counts, overdue),
    }


def counted(statuses: Mapping[Status, int], overdue: int) -> dict[str, int]:
    """A column's counts, of how many stand at each status (nought where none does) and how many are overdue."""
    return {name: sum(statuses[status] for status in of) for name, of in COUNTING.items()} | {"overdue": overdue}


def _packed(view: Situation) -> tuple[list[dict[str, Any]], Iterator[tuple[int, ...]]]:
    """Every cell once: the different ones, and each student's as places among these.

    Most cells of a class look like another one; a year group of 120,000 has some hundreds that differ.
    """
    places: dict[tuple[Any, ...], int] = {}
    # Where nothing was handed in, cells that stand alike share one standing and one due: looked up by these.
    without: dict[tuple[int, int], int] = {}
    day_of = quick_days(view.calendar)
    columns = []
    for judged in view.columns:
        column = []
        for facts, answer, standing in zip(judged.facts, judged.answers, judged.standings, strict=True):
            if facts is not None:
                column.append(places.setdefault(_key(facts, answer.due, standing, day_of), len(places)))
                continue
            alike = (id(standing), id(answer))
            place = without.get(alike)
            if place is None:
                key = _key(None, answer.due, standing, day_of)
                place = without[alike] = places.setdefault(key, len(places))
            column.append(place)
        columns.append(column)
    rows = zip(*columns, strict=True) if columns else iter([()] * len(view.members))
    return [dict(zip(CELL, key, strict=True)) for key in places], rows


def _row(
    view: Situation, member: Member, cells: list[int], filled: Filled, last: datetime | None, *, agreed: bool
) -> dict[str, Any]:
    enrolled = member.student.enrolled
    return {
        **face(member),
        "groups": member.groups,
        "find": search_key(member.full_name),
        "joined": enrolled.first,
        "left_on": enrolled.last,
        "left": enrolled.last is not None and enrolled.last < view.today,
        **_state(view, member, filled, last, agreed=agreed),
        "cells": cells,
    }


def row_state(view: Situation, member: Member, *, agreed: bool) -> dict[str, Any]:
    """What changes about a student's row: how far the portfolio is filled, when it was last worked in.

    ``agreed``: whether who reads it is told that something was agreed with learning support.
    """
    return _state(view, member, view.filled(member, whole=False), view.last_work(member), agreed=agreed)


def _state(
    view: Situation, member: Member, filled: Filled, last_work: datetime | None, *, agreed: bool
) -> dict[str, Any]:
    days = view.quiet_days(member, last_work)
    return {
        "met": filled.met,
        "wanted": filled.wanted,
        "last_work": last_work,
        "quiet": days >= QUIET_AFTER,
        "quiet_days": days,
        "adjusted": agreed and member.student.is_adjusted_on(view.today),
    }


CELL = ("status", "late", "late_days", "overdue", "came", "count", "due", "no_period")
"""What a cell of the board says; ``came`` is the day of the newest submission that stands."""


def _key(
    facts: Facts | None, due: EffectiveDue, standing: Standing, day_of: Callable[[datetime], date]
) -> tuple[Any, ...]:
    """One student and hand-in, judged: what stands under the names of ``CELL``."""
    status, late, late_days, _, overdue, _ = standing
    came = count = None
    if facts is not None:
        count = facts.submissions
        came = day_of(facts.newest_at) if facts.newest_at else None
    day = due.due.day if due.due else None
    return status.value, late, late_days, overdue, came, count or 0, day, due.source is DueSource.NO_PERIOD


def cell(view: Situation, enrolment_id: int, handin: AskedHandIn) -> dict[str, Any]:
    """One student and hand-in, judged."""
    of = (enrolment_id, handin.id)
    key = _key(view.facts.get(of), view.dues[of], view.standings[of], view.calendar.local_day)
    return dict(zip(CELL, key, strict=True))


def opened_cell(person: Person, group_id: int, handin_id: int, enrolment_id: int, now: datetime) -> dict[str, Any]:
    """One cell with its due in full, its submissions, and what lies in the collected pockets now."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now, enrolments=(enrolment_id,))
    handin = next((one for one in view.handins if one.id == handin_id), None)
    if handin is None or not view.members:
        raise Gone("There is no such student or hand-in in this class.", fix="Go back to the pegs.")
    member = view.members[0]
    portfolio = Portfolio.objects.get(enrolment_id=enrolment_id)
    due = view.dues[enrolment_id, handin_id]
    return {
        "student": {**face(member), "full_name": member.full_name},
        "portfolio": portfolio.pk,
        "handin": {"id": handin.id, "title": handin.title, "opens": handin.asked.opens},
        **cell(view, enrolment_id, handin),
        "at": facts_in(view, enrolment_id, handin.id).newest_at,
        "due_at": due.moment,
        "due_time": due.due.at if due.due else None,
        "due_source": due.source.value,
        "extra_days": due.extra_days,
        "submissions": submissions_of(handin_id, enrolment_id),
        "pockets": [_pocket(view, portfolio, pocket) for pocket in Pocket.objects.filter(pk__in=handin.pockets)],
    }


def _pocket(view: Situation, portfolio: Portfolio, pocket: Pocket) -> dict[str, Any]:
    """A collected pocket as it is now: what is wanted, and the evidence in it."""
    lying = work_in(portfolio.pk, pocket)
    outlined = next(one for one in view.outline if one.id == pocket.pk)
    return {
        "id": pocket.pk,
        "title": pocket.title,
        "chips": chip_data(chips(view.wanted(view.members[0], outlined), lying.pieces)),
        "evidence": [
            {
                "id": one.pk,
                "text": one.text,
                "words": one.words,
                "artefact": artefact_data(one.artefact) if one.artefact else None,
            }
            for one in lying.evidence
        ],
        "rows": len(lying.rows),
    }
