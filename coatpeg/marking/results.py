"""What is shown on the pegs as OneRoster results, to take to the school's own system."""

from __future__ import annotations

import zipfile
from collections.abc import Sequence
from datetime import datetime
from io import BytesIO

from coatpeg.core.handins.standing import Status
from coatpeg.core.marking.oneroster_results import LineItem, Result, files
from coatpeg.core.policy import Action
from coatpeg.handins.board.situation import situation
from coatpeg.marking.models import ReleasedMark
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar, term_of_class
from coatpeg.people.models import Person, TeachingGroup


def results(
    person: Person, group_id: int, students: Sequence[int], handins: Sequence[int], now: datetime
) -> tuple[bytes, str]:
    """The files as a zip, and the name of the class. Who or what is gone meanwhile is left out."""
    require_in_group(person, Action.SEE_SUBMISSION, group_id)
    view = situation(group_id, now)
    group = TeachingGroup.objects.get(pk=group_id)
    wanted = set(students)
    members = [one for one in view.members if one.enrolment_id in wanted]
    columns = [one for one in view.handins if one.id in set(handins)]
    numbers = dict(Person.objects.filter(enrolments__group_id=group_id).values_list("pk", "number"))
    marks = {
        one.outcome.submission_id: one
        for one in ReleasedMark.objects.filter(
            outcome__voided_at=None, outcome__submission__handin__in=[one.id for one in columns]
        ).select_related("outcome")
    }
    lines = []
    for handin in columns:
        for member in members:
            cell = (member.enrolment_id, handin.id)
            facts = view.facts.get(cell)
            status = view.standings[cell].status
            mark = marks.get(facts.newest or 0) if facts and status is Status.ACCEPTED else None
            lines.append(
                Result(
                    handin.id,
                    member.enrolment_id,
                    numbers.get(member.person_id) or f"person-{member.person_id}",
                    status,
                    mark.score if mark else None,
                    view.calendar.local_day(mark.outcome.at) if mark else None,
                )
            )
    items = [LineItem(one.id, one.title, one.asked.opens, one.asked.earliest, one.points) for one in columns]
    term = term_of_class(school_calendar(), group).name
    target = BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as opened:
        for name, text in files(f"class-{group_id}", term, items, lines).items():
            opened.writestr(name, text)
    return target.getvalue(), group.name
