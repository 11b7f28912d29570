"""The list of hand-ins for staff, with what a new one can be made of."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from django.db.models import Count

from coatpeg.core.errors import Gone
from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action, decide
from coatpeg.handins.board.pegs import cell, frame
from coatpeg.handins.board.situation import situation
from coatpeg.handins.models import HandIn
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_in_group
from coatpeg.people.faces import face
from coatpeg.people.models import Period, Person, WorkingGroup


def asked_of(person: Person, group_id: int, enrolment_id: int, now: datetime) -> dict[str, Any]:
    """What a student of the class is asked for and what not, in due order: for those who joined or left."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now, enrolments=(enrolment_id,))
    if not view.members:
        raise Gone("There is no such student in this class.", fix="Go back to the class list.")
    member = view.members[0]
    lines = [
        {
            "id": one.id,
            "title": one.title,
            "opens": one.asked.opens,
            "own_due": enrolment_id in one.own,
            **cell(view, enrolment_id, one),
        }
        for one in view.handins
    ]
    return {
        "student": {**face(member), "full_name": member.full_name},
        "joined": member.student.enrolled.first,
        "asked": [one for one in lines if one["status"] != Status.NOT_ASKED.value],
        "not_asked": [one for one in lines if one["status"] == Status.NOT_ASKED.value],
    }


def _drafts(group_id: int) -> list[dict[str, Any]]:
    """What only staff see yet, in due order."""
    rows = HandIn.objects.filter(group_id=group_id, taken_away_at=None, draft=True).prefetch_related("pockets")
    ordered = sorted(rows, key=lambda one: (one.due_day or date.max, one.title, one.pk))
    return [
        {
            "id": one.pk,
            "title": one.title,
            "opens": one.opens,
            "due": one.due_day,
            "due_time": one.due_time,
            "pockets": [pocket.title for pocket in one.pockets.all()],
        }
        for one in ordered
    ]


def handins(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The rail's frame, the pockets and periods to choose from, and whether this person sets hand-ins."""
    standings = require_in_group(person, Action.SEE_HANDINS, group_id)
    view = situation(group_id, now)
    laid = set(pockets_of(group_id).filter(section__unit__isnull=False).values_list("pk", flat=True))
    return {
        **frame(view),
        "pockets": [
            {
                "id": pocket.id,
                "title": pocket.title,
                "section": pocket.section,
                "kind": pocket.kind.value,
                "of_unit": pocket.id in laid,
            }
            for pocket in view.outline
            if not pocket.retired
        ],
        "taken_away": list(
            HandIn.objects.filter(group_id=group_id, taken_away_at__isnull=False)
            .annotate(submissions_made=Count("submissions"))
            .order_by("-taken_away_at")
            .values("id", "title", "taken_away_at", "submissions_made")
        ),
        "drafts": _drafts(group_id),
        "all_groups": list(WorkingGroup.objects.filter(group_id=group_id).values("id", "name")),
        "all_periods": list(Period.objects.filter(group_id=group_id).values("id", "name")),
        "may_set": decide(Action.SET_HANDIN, standings).allowed,
    }
