"""Patterns over a class: when work comes, who is usually late, how far each is against what is expected by now."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime, timedelta
from typing import Any

from coatpeg.core.handins import patterns as rules
from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.people.access import require_in_group
from coatpeg.people.faces import face
from coatpeg.people.models import Person
from coatpeg.people.rosters import Member


def patterns(person: Person, group_id: int, now: datetime, students: Collection[int] | None) -> dict[str, Any]:
    """The patterns of some students of a class, or of all: as many statements as its board.

    The median is of the whole class always: each is told against it, whoever is shown.
    """
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now)
    here = [one for one in view.members if one.student.is_enrolled(view.today)]
    filled = {one.enrolment_id: view.filled(one, whole=False) for one in here}
    shares = {key: rules.share(one.met, one.wanted) for key, one in filled.items()}
    median = rules.median_share(shares.values())
    chosen = None if students is None else set(students)
    members = [one for one in view.members if chosen is None or one.enrolment_id in chosen]
    here = [one for one in here if chosen is None or one.enrolment_id in chosen]
    dated = [one for one in view.handins if one.asked.earliest is not None and now >= one.opening(view.calendar)]
    return {
        "handins": [_handin(view, one, members) for one in dated],
        "students": [
            {
                **face(one),
                "met": filled[one.enrolment_id].met,
                "wanted": filled[one.enrolment_id].wanted,
                "share": shares[one.enrolment_id],
                "behind": rules.is_behind(shares[one.enrolment_id], median),
                **_late(view, one),
            }
            for one in here
        ],
        "median": median,
    }


def _before(view: Situation, member: Member, handin: AskedHandIn) -> timedelta | None:
    """How long before due a student's first submission came; None where nothing came, or it has no due moment."""
    cell = (member.enrolment_id, handin.id)
    facts, due = view.facts.get(cell), view.dues[cell].moment
    if facts is None or facts.first_at is None or due is None or view.standings[cell].status is Status.EXCUSED:
        return None
    return due - facts.first_at


def _handin(view: Situation, handin: AskedHandIn, members: list[Member]) -> dict[str, Any]:
    before = [one for member in members if (one := _before(view, member, handin)) is not None]
    found = rules.quartiles([rules.days_before(one) for one in before])
    dues = [view.dues[member.enrolment_id, handin.id].moment for member in members]
    earliest = min((one for one in dues if one is not None), default=view.now)
    standings = [view.standings[member.enrolment_id, handin.id] for member in members]
    return {
        "id": handin.id,
        "title": handin.title,
        "due": handin.asked.earliest,
        "asked": sum(one.status not in (Status.NOT_ASKED, Status.EXCUSED) for one in standings),
        "in": len(before),
        "late": sum(one.late for one in standings),
        "curve": [{"day": day, "count": count} for day, count in rules.curve(before, view.now - earliest)],
        "low": found.low if found else None,
        "middle": found.middle if found else None,
        "high": found.high if found else None,
    }


def _late(view: Situation, member: Member) -> dict[str, Any]:
    standings = [
        view.standings[member.enrolment_id, handin.id]
        for handin in view.handins
        if _before(view, member, handin) is not None
    ]
    found = rules.lateness((one.late, one.late_days) for one in standings)
    return {"late": found.late, "came": found.of, "late_days": found.school_days, "usually_late": found.usual}
