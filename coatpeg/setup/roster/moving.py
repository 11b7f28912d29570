"""A student moves to a parallel class, with their work.

Decided here: whoever may bring the student in there (a lead of a class that has them, or an administrator) and keeps
both lists moves them. The place in the class before ends that day and stays readable; in the other one a place begins,
in the period of the same name where there is one, with copies of all work in the pockets that are the same there (by
key, as in a class that was made like the other one, else by title and kind). Pockets that are not there are named, and
what lies in them stays where it is. Both lists have it in their history; it is undone as long as nothing was done with
it in the new class.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.people.places import Places
from coatpeg.core.policy import Action
from coatpeg.cupboard.giving import for_joiners
from coatpeg.events.recording import deed
from coatpeg.outlines.dealing import deal_missing
from coatpeg.outlines.models import Pocket
from coatpeg.people.access import has_student, require, require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Period, PeriodMembership, Person, RosterChange, TeachingGroup
from coatpeg.portfolios.copying import Copied, copy_work
from coatpeg.portfolios.writing import locked_of
from coatpeg.setup.roster.enrolling import begin_again, end_places, enrol
from coatpeg.setup.roster.memberships import Applying, RosterWrites, locked_group, place_in_periods
from coatpeg.sharing.settling import fill_for_joiners


@dataclass(frozen=True, slots=True)
class Moved:
    """The changes of both lists, the newer class's first; how much came over, and from which pockets nothing could."""

    changes: list[tuple[int, int]] = field(default_factory=list)
    """(class, change)"""
    pieces: int = 0
    left_behind: list[str] = field(default_factory=list)


def move_student(person: Person, group_id: int, enrolment_id: int, into_id: int, now: datetime) -> Moved:
    """Move a student of a class into another one, with copies of their work."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    require_in_group(person, Action.KEEP_ROSTER, into_id)
    if group_id == into_id:
        raise Invalid("This is the class they are in.", where="into", fix="Choose another class.")
    with deed(person.pk, now) as doing:
        groups = {pk: locked_group(pk) for pk in sorted((group_id, into_id))}
        group, into = groups[group_id], groups[into_id]
        if TeachingGroup.Kind.CASELOAD in (group.kind, into.kind):
            raise Invalid("A caseload has no portfolios.", where="into", fix="Choose a class or a year group.")
        today = school_calendar().local_day(now)
        leaving = Enrolment.objects.filter(pk=enrolment_id, group=group).select_related("person").first()
        if leaving is None or (leaving.last is not None and leaving.last < today):
            raise Gone("They are not in this class any more.", fix="Load the list again.")
        require(Action.BRING_IN_KNOWN, has_student(person, leaving.person_id))
        period = _period_of(leaving, into)
        gone, come = RosterWrites(), RosterWrites()
        there = Enrolment.objects.filter(group=into, person=leaving.person).first()
        to = Applying(doing, into, come, today)
        if there is None:
            there = enrol(to, [leaving.person_id], today)[0]
            doing.record("enrolled", into_id, enrolment_id=there.pk, moved_from=group_id)
        elif there.last is None or there.last >= today:
            raise Refused(
                f"{leaving.person.full_name} is in “{into.name}” already.",
                where="into",
                fix="Mark them as left here; the work of this class stays readable.",
            )
        else:
            begin_again(to, there.pk, today)
            doing.record("came_back", into_id, enrolment_id=there.pk, moved_from=group_id)
        if period:
            place_in_periods(to, {there.pk: period}, today)
        deal_missing(into_id, today)
        for_joiners(doing, into_id)
        fill_for_joiners(into_id, now)
        copied = _take_along(leaving, there, now)
        end_places(doing, group_id, {leaving.pk}, today, gone)
        changes = [
            (one.pk, RosterChange.objects.create(group=one, person=person, at=now, data=vars(writes)).pk)
            for one, writes in ((into, come), (group, gone))
            if writes
        ]
        return Moved(changes, copied.pieces, copied.left_behind)


def _period_of(leaving: Enrolment, into: TeachingGroup) -> str:
    """The other class's period of the same name as the student's, as people mean it; empty where there is none."""
    membership = PeriodMembership.objects.filter(enrolment=leaving, last=None).select_related("period").first()
    if membership is None:
        return ""
    names = list(Period.objects.filter(group=into).order_by("pk").values_list("name", flat=True))
    called = Places(names).as_here(membership.period.name)
    return called if called in names else ""


def _take_along(leaving: Enrolment, there: Enrolment, now: datetime) -> Copied:
    locked = locked_of(leaving.pk, there.pk)
    return copy_work(locked[leaving.pk], locked[there.pk], _matched(leaving.group_id, there.group_id), now)


def _matched(group_id: int, into_id: int) -> dict[int, Pocket]:
    """The other class's pockets by the ids of those here that they stand for: by key, else by title and kind."""
    theirs = list(Pocket.objects.filter(section__template__group_id=into_id, retired_at=None, section__repeats=False))
    by_key = {one.key: one for one in theirs}
    by_title = {(one.title.casefold(), one.kind): one for one in reversed(theirs)}
    found: dict[int, Pocket] = {}
    taken: set[int] = set()
    ours = list(Pocket.objects.filter(section__template__group_id=group_id, section__repeats=False).order_by("pk"))
    for one in ours:
        if one.key in by_key:
            found[one.pk] = by_key[one.key]
            taken.add(by_key[one.key].pk)
    for one in ours:
        alike = by_title.get((one.title.casefold(), one.kind))
        if one.pk not in found and alike is not None and alike.pk not in taken:
            found[one.pk] = alike
            taken.add(alike.pk)
    return found
