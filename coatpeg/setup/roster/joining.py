"""Saying that a student comes into another class, or not: by an administrator, or a lead who has them already."""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Gone
from coatpeg.core.people.roster_plan import Line, Verdict
from coatpeg.core.policy import Action
from coatpeg.cupboard.giving import for_joiners
from coatpeg.events.recording import Deed, deed
from coatpeg.notices.putting import put
from coatpeg.outlines.dealing import deal_missing
from coatpeg.people.access import has_student, require
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, JoinRequest, Person, RosterChange, TeachingGroup
from coatpeg.setup.roster.enrolling import write_lines
from coatpeg.setup.roster.join_requests import entry_of
from coatpeg.setup.roster.memberships import Applying, RosterWrites, locked_group
from coatpeg.sharing.settling import fill_for_joiners


def settle(person: Person, request_id: int, now: datetime, *, confirm: bool) -> None:
    """Let the student come in, or decline; whoever asked is told. ``Gone`` where it was settled, or has lapsed."""
    found = JoinRequest.objects.filter(pk=request_id).first()
    require(Action.BRING_IN_KNOWN, has_student(person, found.student_id) if found else frozenset())
    assert found is not None
    today = school_calendar().local_day(now)
    with deed(person.pk, now) as doing:
        group = locked_group(found.group_id)
        request = JoinRequest.objects.select_for_update().get(pk=request_id)
        if request.state != JoinRequest.State.WAITING or max(today, request.lapses) != request.lapses:
            raise Gone("This request was settled already, or has lapsed.", fix="Whoever asked can ask again.")
        request.state = JoinRequest.State.CONFIRMED if confirm else JoinRequest.State.DECLINED
        request.settled_by, request.settled_at = person, now
        request.save(update_fields=["state", "settled_by", "settled_at"])
        if confirm:
            _let_in(doing, group, request, person)
        doing.record("join_confirmed" if confirm else "join_declined", group.pk, request=request.pk)
        put(doing, "join_settled", group.pk, request=request.pk)


def _let_in(doing: Deed, group: TeachingGroup, request: JoinRequest, person: Person) -> None:
    """Enrol the student, or bring them back where they were in the class before; undone like a list."""
    today = school_calendar().local_day(doing.now)
    standing = Enrolment.objects.filter(group=group, person_id=request.student_id).first()
    if standing is not None and standing.last is None:
        return  # came in another way meanwhile
    verdict = Verdict.BACK if standing else Verdict.JOINS
    line = Line(1, entry_of(request), verdict, request.student_id, standing.pk if standing else None)
    writes = RosterWrites()
    write_lines(Applying(doing, group, writes, today), [line], request.first or today)
    deal_missing(group.pk, today)
    for_joiners(doing, group.pk)
    fill_for_joiners(group.pk, doing.now)
    RosterChange.objects.create(group=group, person=person, at=doing.now, data=vars(writes))
