"""What a student has to hand in."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.handins.standing import Status
from coatpeg.core.handins.worklist import to_do, urgency
from coatpeg.core.policy import Action
from coatpeg.handins.board.situation import situation
from coatpeg.handins.student.standing import handins_data
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for


def to_hand_in(person: Person, portfolio_id: int, now: datetime) -> dict[str, Any]:
    """What a student still has to hand in, in a calm order, then what is in and what opens later."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_WORKLIST)
    view = situation(portfolio.enrolment.group_id, now, enrolments=(portfolio.enrolment_id,))
    enrolment = portfolio.enrolment_id
    shown = [one for one in view.handins if view.standings[enrolment, one.id].status is not Status.NOT_ASKED]
    waiting = [one for one in shown if to_do(view.standings[enrolment, one.id])]
    waiting.sort(key=lambda one: urgency(view.standings[enrolment, one.id], view.dues[enrolment, one.id].moment))
    lines = {one["id"]: one for one in handins_data(view, shown)}
    return {
        "to_do": [lines[one.id] for one in waiting],
        "others": [lines[one.id] for one in shown if one not in waiting],
    }
