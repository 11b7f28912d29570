"""Putting students of a class into periods and working groups; what a change of its list wrote, to be undone.

Periods have from–to dates: who changes is in the old one until yesterday; so it is with working groups
(``people.groups``).
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta
from typing import TypeVar

from django.db.models import QuerySet

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.people.places import Places
from coatpeg.core.policy import Action
from coatpeg.cupboard.giving import for_joiners
from coatpeg.events.recording import Deed, deed
from coatpeg.people import models
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.groups import Moved, change_places, first_set
from coatpeg.sharing.settling import fill_anew, fill_for_joiners

AT_ONCE = 1_000
"""Rows in one statement: well below the database's packet size."""
ONE_DAY = timedelta(days=1)
LONGEST_PLACE = 40
"""Characters of a period's or group's name."""


@dataclass
class RosterWrites:
    """Rows made and values changed, so that they can be taken back."""

    people: list[int] = field(default_factory=list)
    enrolments: list[int] = field(default_factory=list)
    fields: list[tuple[int, str, str]] = field(default_factory=list)
    """(person, field, value before)"""
    memberships: list[int] = field(default_factory=list)
    """Period memberships made."""
    ended: list[tuple[int, str | None]] = field(default_factory=list)
    """(period membership, its last day before)"""
    moved: list[tuple[int, int]] = field(default_factory=list)
    """(period membership, its period before)"""
    groups: list[tuple[int, int]] = field(default_factory=list)
    """(working group, enrolment) added"""
    ungrouped: list[tuple[int, int]] = field(default_factory=list)
    """(working group, enrolment) taken out"""
    left: list[tuple[int, str | None]] = field(default_factory=list)
    """(enrolment, its last day before)"""
    absences: list[int] = field(default_factory=list)

    def __bool__(self) -> bool:
        return any(vars(self).values())


@dataclass(frozen=True, slots=True)
class Applying:
    """What every step of applying a list needs."""

    doing: Deed
    group: models.TeachingGroup
    writes: RosterWrites
    today: date


def locked_group(group_id: int) -> models.TeachingGroup:
    """A teaching group with its row locked: the first step of every change of its list."""
    found = models.TeachingGroup.objects.select_for_update().filter(pk=group_id).first()
    if found is None:
        raise Gone("There is no such class.", fix="Go back to the start.")
    return found


P = TypeVar("P", models.Period, models.WorkingGroup)


def _named(
    standing: QuerySet[P], wanted: Collection[str], group: models.TeachingGroup, **new: models.GroupSet
) -> dict[str, P]:
    """Places of a class by the names wanted, made where there is none.

    Names are the same as people mean them (``P3``, ``Period 3``) or where the database says so, so that one it holds
    unique is never made twice.
    """
    known = {one.name: one for one in standing.order_by("pk")}
    here = Places(known)
    found: dict[str, P] = {}
    for name in sorted(wanted):
        called = here.as_here(name)
        if called not in known:
            known[called], _ = standing.get_or_create(name=called, defaults={"group": group, **new})
        found[name] = known[called]
    return found


def place_in_periods(to: Applying, wanted: Mapping[int, str], joins: date) -> None:
    """Put enrolments in periods by name; a new period is made, an old membership ends the day before."""
    periods = _named(models.Period.objects.filter(group=to.group), set(wanted.values()), to.group)
    standing: dict[int, models.PeriodMembership] = {}
    of_class = models.PeriodMembership.objects.filter(enrolment__group=to.group, enrolment__in=list(wanted), last=None)
    for membership in of_class.order_by("first"):
        standing[membership.enrolment_id] = membership
    rows = []
    for enrolment_id, name in wanted.items():
        before = standing.get(enrolment_id)
        if before and before.period_id == periods[name].pk:
            continue
        if before and before.first >= to.today:
            # Put there today, or to begin later: that was a slip, and is set right as if it had never been.
            to.writes.moved.append((before.pk, before.period_id))
            before.period = periods[name]
            before.save(update_fields=["period"])
            continue
        if before:
            to.writes.ended.append((before.pk, None))
            before.last = to.today - ONE_DAY
            before.save(update_fields=["last"])
        begins = to.today if before else joins
        rows.append(models.PeriodMembership(enrolment_id=enrolment_id, period=periods[name], first=begins))
    made = models.PeriodMembership.objects.bulk_create(rows, batch_size=AT_ONCE)
    to.writes.memberships += [one.pk for one in made]


def place_in_groups(to: Applying, wanted: Mapping[int, str]) -> None:
    """Put enrolments in working groups by name, out of the others of its set; a new one is of the class's first set."""
    if not wanted:
        return
    first = first_set(to.group)
    standing = models.WorkingGroup.objects.filter(group=to.group).select_related("of")
    groups = _named(standing, set(wanted.values()), to.group, of=first)
    by_set: dict[models.GroupSet, dict[int, models.WorkingGroup | None]] = {}
    for enrolment_id, name in wanted.items():
        by_set.setdefault(groups[name].of, {})[enrolment_id] = groups[name]
    for of, places in by_set.items():
        moved(to, change_places(of, places, to.today, to.doing.now))


def moved(to: Applying, what: Moved) -> None:
    """Note a change of groups; whoever came has what the group fills, and gets what was given to it."""
    to.writes.groups += what.into
    to.writes.ungrouped += what.out_of
    fill_anew({group for group, _ in what.into}, to.doing.now)
    if what.into:
        for_joiners(to.doing, to.group.pk)


def place(
    person: models.Person, group_id: int, students: Collection[int], now: datetime, *, period: str = "", group: str = ""
) -> int:
    """Put students (by enrolment) into a period or a working group by its name, made where there is none.

    Returns the change to undo it by.
    """
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    name = " ".join((period or group).split())
    if not name or len(name) > LONGEST_PLACE:
        raise Invalid(
            "It has no name." if not name else f"The name has {len(name)} characters.",
            where="name",
            fix=f"Give a name of at most {LONGEST_PLACE} characters.",
        )
    today = school_calendar().local_day(now)
    with deed(person.pk, now) as doing:
        of = locked_group(group_id)
        if models.Enrolment.objects.filter(group=of, pk__in=students).count() != len(set(students)):
            raise Gone("One of them is not in this class.", fix="Load the list again.")
        to = Applying(doing, of, RosterWrites(), today)
        wanted = dict.fromkeys(sorted(set(students)), name)
        if period:
            place_in_periods(to, wanted, today)
            for_joiners(doing, group_id)
            fill_for_joiners(group_id, doing.now)
        else:
            place_in_groups(to, wanted)
        for enrolment in wanted:
            doing.record("student_changed", group_id, enrolment_id=enrolment, fields=["period" if period else "group"])
        change = models.RosterChange.objects.create(group=of, person=person, at=now, data=vars(to.writes))
        return change.pk
