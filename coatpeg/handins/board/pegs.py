"""The pegs: all students × all hand-ins at a glance, the rail, and one cell opened beside."""

from __future__ import annotations

from collections import Counter
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.handins.asking import DueSource
from coatpeg.core.handins.standing import NOTHING, Status
from coatpeg.core.outlines.filling import chips
from coatpeg.core.people.names import full, search_key
from coatpeg.core.policy import Action
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, situation
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


def board(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The whole board as plain data: a fixed number of queries, however many students and hand-ins."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now)
    changes = [one.changes_at for one in view.standings.values() if one.changes_at]
    return {
        **frame(view),
        "students": [_row(view, member) for member in view.members],
        "changes_at": min(changes, default=None),
        "counting": {name: [status.value for status in of] for name, of in COUNTING.items()},
    }


def frame(view: Situation) -> dict[str, Any]:
    """The term's weeks and the hand-ins with their counts: what the rail shows."""
    # A class that begins next term shows that one's weeks.
    begins = min((member.student.enrolled.first for member in view.members), default=view.today)
    term = view.calendar.term_at(max(view.today, begins))
    weeks = view.calendar.weeks(term) if term else ()
    return {
        "today": view.today,
        "term": term.name if term else "",
        "weeks": [{"number": week.number, "monday": week.monday, "school_days": week.school_days} for week in weeks],
        "handins": [_column(view, handin) for handin in view.handins],
        "periods": sorted({member.period for member in view.members if member.period}),
        "groups": sorted({name for member in view.members for name in member.groups}),
    }


def _column(view: Situation, handin: AskedHandIn) -> dict[str, Any]:
    counts = Counter(view.standings[member.enrolment_id, handin.id].status for member in view.members)
    counted = {name: sum(counts[status] for status in of) for name, of in COUNTING.items()}
    overdue = sum(1 for member in view.members if view.standings[member.enrolment_id, handin.id].overdue)
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
        "for_everyone": handin.for_everyone,
        **counted,
        "overdue": overdue,
    }


def _row(view: Situation, member: Member) -> dict[str, Any]:
    return {
        **face(member),
        "groups": member.groups,
        "find": search_key(f"{member.given_name} {member.family_name}"),
        "left": member.student.enrolled.last is not None and member.student.enrolled.last < view.today,
        **row_state(view, member),
        "cells": [cell(view, member.enrolment_id, handin) for handin in view.handins],
    }


def row_state(view: Situation, member: Member) -> dict[str, Any]:
    """What work changes about a student's row: how far the portfolio is filled, when it was last worked in."""
    filled = view.filled(member, whole=False)
    last_work = view.last_work(member)
    return {"met": filled.met, "wanted": filled.wanted, "last_work": last_work, "quiet": view.quiet(member)}


def cell(view: Situation, enrolment_id: int, handin: AskedHandIn) -> dict[str, Any]:
    """One student and hand-in, judged."""
    key = enrolment_id, handin.id
    facts = view.facts.get(key, NOTHING)
    due = view.dues[key]
    status, late, late_days, late_by, overdue, _ = view.standings[key]
    return {
        "status": status.value,
        "late": late,
        "late_days": late_days,
        "late_seconds": int(late_by.total_seconds()) if late_by else 0,
        "overdue": overdue,
        "at": facts.newest_at,
        "count": facts.submissions,
        "due": due.due.day if due.due else None,
        "no_period": due.source is DueSource.NO_PERIOD,
    }


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
        "student": {**face(member), "full_name": full(member.family_name, member.given_name)},
        "portfolio": portfolio.pk,
        "handin": {"id": handin.id, "title": handin.title, "opens": handin.asked.opens},
        **cell(view, enrolment_id, handin),
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
