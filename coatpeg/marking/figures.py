"""A number for each peg instead of its coat: the released points, or how much of what is collected is there.

Decided here: points are those of the released mark of what stands accepted; a draft is nobody's business on the pegs.
*Filled* is met ÷ wanted over the pockets that the hand-in collects from that student, in whole per cent, rounded half
up; locked pockets by what was wanted when they were handed in. Nothing where nothing is wanted or asked.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.handins.standing import Status
from coatpeg.core.outlines.filling import Filled, filled
from coatpeg.core.policy import Action
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.marking.models import ReleasedMark
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.counting import NO_CONTENT

Rows = dict[int, list[float | None]]
"""By enrolment id, a number for each hand-in in the board's order."""


def figures(person: Person, group_id: int, what: str, now: datetime) -> dict[str, Any]:
    """``what`` is ``points`` or ``filled``; a fixed number of queries."""
    require_in_group(person, Action.SEE_SUBMISSION, group_id)
    view = situation(group_id, now)
    rows = _points(view, group_id) if what == "points" else _filled(view)
    return {
        "handins": [one.id for one in view.handins],
        "rows": [{"id": enrolment, "figures": of} for enrolment, of in rows.items()],
    }


def _points(view: Situation, group_id: int) -> Rows:
    marks = ReleasedMark.objects.filter(outcome__voided_at=None, outcome__submission__handin__group_id=group_id)
    scores = {
        one: float(score) for one, score in marks.values_list("outcome__submission_id", "score") if score is not None
    }

    def of(enrolment: int, handin: int) -> float | None:
        facts = view.facts.get((enrolment, handin))
        accepted = view.standings[enrolment, handin].status is Status.ACCEPTED
        return scores.get(facts.newest or 0) if facts and accepted else None

    return {one.enrolment_id: [of(one.enrolment_id, handin.id) for handin in view.handins] for one in view.members}


def _filled(view: Situation) -> Rows:
    collected = {pocket for handin in view.handins for pocket in handin.pockets}
    outline = [pocket for pocket in view.outline if pocket.id in collected]
    found: Rows = {}
    for member in view.members:
        units: dict[int, Filled] = {}
        for pocket in outline:
            content = view.contents.get((member.enrolment_id, pocket.id), NO_CONTENT)
            units[pocket.id] = filled(view.wanted(member, pocket), content.pieces)
        found[member.enrolment_id] = [
            None
            if view.standings[member.enrolment_id, handin.id].status in (Status.NOT_ASKED, Status.EXCUSED)
            else _share([units[pocket] for pocket in handin.pockets if pocket in units])
            for handin in view.handins
        ]
    return found


def _share(units: list[Filled]) -> float | None:
    met, wanted = sum(one.met for one in units), sum(one.wanted for one in units)
    return (200 * met + wanted) // (2 * wanted) if wanted else None
