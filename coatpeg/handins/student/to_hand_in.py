"""What a student has to hand in: in the class that is open, and what waits in their other classes.

Decided here: of other classes only what can be handed in now stands here, in one order over all of them; the rest is
looked at in its own class. Who came by a sign-in card sees the class of that card alone.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.handins.standing import Status
from coatpeg.core.handins.worklist import urgency
from coatpeg.core.policy import Action
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.reminding import reading
from coatpeg.handins.student.standing import handins_data, waits
from coatpeg.people.accounts import memberships
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import Portfolio


def to_hand_in(person: Person, portfolio_id: int, now: datetime) -> dict[str, Any]:
    """What a student still has to hand in, in a calm order, then what is in and what opens later."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_WORKLIST)
    enrolment = portfolio.enrolment_id
    view = situation(portfolio.enrolment.group_id, now, enrolments=(enrolment,))
    shown = [one for one in view.handins if view.standings[enrolment, one.id].status is not Status.NOT_ASKED]
    waiting = sorted((one for one in shown if waits(view, one)), key=lambda one: _urgency(view, one))
    lines = {one["id"]: one for one in handins_data(view, shown)}
    return {
        "to_do": [lines[one.id] for one in waiting],
        "reminders": reading.for_student(enrolment, [one.id for one in waiting], now),
        "others": [lines[one.id] for one in shown if one not in waiting],
        "elsewhere": _elsewhere(person, portfolio, now),
    }


def _urgency(view: Situation, handin: AskedHandIn) -> Any:
    cell = (view.members[0].enrolment_id, handin.id)
    return urgency(view.standings[cell], view.dues[cell].moment)


def most_urgent(person: Person, now: datetime) -> int | None:
    """The group in which a student of several classes has to hand in something first; None where nothing waits."""
    mine = {one.enrolment_id: one.group_id for one in memberships(person) if Action.HAND_IN in one.may}
    found = []
    for enrolment_id, group_id in mine.items():
        if enrolment_id is not None:
            view = situation(group_id, now, enrolments=(enrolment_id,))
            found += [(_urgency(view, one), group_id) for one in view.handins if waits(view, one)]
    return min(found)[1] if found else None


def _elsewhere(person: Person, here: Portfolio, now: datetime) -> list[dict[str, Any]]:
    """What waits in the student's other classes: the same statements again for each of them."""
    groups = {
        one.enrolment_id: one
        for one in memberships(person)
        if one.enrolment_id not in (None, here.enrolment_id) and Action.HAND_IN in one.may
    }
    found = []
    for portfolio in Portfolio.objects.filter(enrolment_id__in=groups).order_by("pk"):
        of = groups[portfolio.enrolment_id]
        view = situation(of.group_id, now, enrolments=(portfolio.enrolment_id,))
        waiting = [one for one in view.handins if waits(view, one)]
        place = {"group": {"id": of.group_id, "title": of.name}, "portfolio": portfolio.pk}
        lines = handins_data(view, waiting) if waiting else []
        found += [(_urgency(view, one), {**line, **place}) for one, line in zip(waiting, lines, strict=True)]
    return [line for _, line in sorted(found, key=lambda one: one[0])]
