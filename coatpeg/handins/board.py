"""The pegs: all students × all hand-ins at a glance, the rail, and one cell opened beside."""

from __future__ import annotations

from collections import Counter
from datetime import datetime
from typing import Any

from coatpeg.core.asking import DueSource
from coatpeg.core.errors import Gone
from coatpeg.core.filling import chips
from coatpeg.core.names import full, search_key
from coatpeg.core.policy import Action
from coatpeg.core.standing import NOTHING, Standing, Status
from coatpeg.core.worklist import quiet
from coatpeg.handins.asking import AskedHandIn
from coatpeg.handins.models import Outcome, Submission
from coatpeg.handins.situation import Situation, situation
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import chip_data
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.people.rosters import Member
from coatpeg.portfolios.contents import artefact_data, inside
from coatpeg.portfolios.models import Portfolio

IN = (Status.HANDED_IN, Status.ACCEPTED, Status.SENT_BACK)
"""Statuses that count as "in" on the rail: something was handed in and stands."""


def board(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The whole board as plain data: a fixed number of queries, however many students and hand-ins."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now)
    changes = [one.changes_at for one in view.standings.values() if one.changes_at]
    return {
        **frame(view),
        "students": [_row(view, member) for member in view.members],
        "changes_at": min(changes, default=None),
    }


def frame(view: Situation) -> dict[str, Any]:
    """The term's weeks and the hand-ins with their counts: what the rail shows."""
    term = view.calendar.term_at(view.today)
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
    overdue = sum(1 for member in view.members if view.standings[member.enrolment_id, handin.id].overdue)
    asked = len(view.members) - counts[Status.NOT_ASKED] - counts[Status.EXCUSED]
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
        "asked": asked,
        "in": sum(counts[status] for status in IN),
        "to_mark": counts[Status.HANDED_IN],
        "accepted": counts[Status.ACCEPTED],
        "sent_back": counts[Status.SENT_BACK],
        "overdue": overdue,
    }


def _row(view: Situation, member: Member) -> dict[str, Any]:
    filled = view.filled(member, whole=False)
    last_work = view.last_work(member)
    return {
        **face(member),
        "groups": member.groups,
        "find": search_key(f"{member.given_name} {member.family_name}"),
        "left": member.student.enrolled.last is not None and member.student.enrolled.last < view.today,
        "met": filled.met,
        "wanted": filled.wanted,
        "last_work": last_work,
        "quiet": quiet(last_work, view.now),
        "cells": [cell(view, member.enrolment_id, handin) for handin in view.handins],
    }


def face(member: Member) -> dict[str, Any]:
    """How staff see a student in a list."""
    return {
        "id": member.enrolment_id,
        "family_name": member.family_name,
        "given_name": member.given_name,
        "picture": member.picture,
        "tint": member.tint,
        "period": member.period,
    }


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


def standing_data(standing: Standing) -> dict[str, Any]:
    """A standing as plain data; the duration in whole seconds."""
    return {
        "status": standing.status.value,
        "late": standing.late,
        "late_days": standing.late_days,
        "late_seconds": int(standing.late_by.total_seconds()) if standing.late_by else 0,
        "overdue": standing.overdue,
    }


def opened_cell(person: Person, group_id: int, handin_id: int, enrolment_id: int, now: datetime) -> dict[str, Any]:
    """One cell with its due in full, its submissions, and what lies in the collected pockets now."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now, enrolment_id=enrolment_id)
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
    lying = inside(portfolio.pk, pocket)
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


def submissions_of(handin_id: int, enrolment_id: int) -> list[dict[str, Any]]:
    """All submissions of one student and hand-in, oldest first, each with its standing outcome: two queries."""
    found = Submission.objects.filter(handin_id=handin_id, enrolment_id=enrolment_id).order_by("number")
    outcomes = {
        outcome.submission_id: outcome for outcome in Outcome.objects.filter(submission__in=found, voided_at=None)
    }
    return [
        {
            "id": one.pk,
            "number": one.number,
            "at": one.at,
            "receipt": one.receipt,
            "voided_at": one.voided_at,
            "links": one.snapshot["links"],
            "empty": one.snapshot["empty"],
            "outcome": outcomes[one.pk].kind if one.pk in outcomes else None,
            "outcome_at": outcomes[one.pk].at if one.pk in outcomes else None,
            "outcome_pockets": outcomes[one.pk].pockets if one.pk in outcomes else [],
        }
        for one in found
    ]
