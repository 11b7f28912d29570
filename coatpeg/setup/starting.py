"""Starting a class, caseload or cohort: the group, its lead, an empty template. Renaming, moving, putting away."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.people.person_names import tidy
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import deed
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import FIRST_SECTION, Section, Template
from coatpeg.people import staffing
from coatpeg.people.access import require, require_in_group, require_in_school, to_group, to_group_put_away
from coatpeg.people.models import Enrolment, PeriodMembership, Person, TeachingGroup
from coatpeg.setup.deleting import begun

LONGEST_NAME = 100
LONGEST_YEARS = 10


def start_group(
    person: Person,
    name: str,
    kind: TeachingGroup.Kind,
    first: date,
    last: date,
    now: datetime,
    lead_id: int | None = None,
) -> TeachingGroup:
    """Start a teaching group; the person is its lead, unless an administrator names somebody else."""
    caseload = kind == TeachingGroup.Kind.CASELOAD
    require_in_school(person, Action.START_CASELOAD if caseload else Action.START_CLASS)
    name = _checked(name, first, last)
    if caseload and lead_id in (None, person.pk):
        raise Refused(
            "Nobody gives themselves a caseload: its lead sees students' work in all their classes.",
            where="lead",
            fix="Name the coordinator who is to lead it.",
        )
    lead = person
    if lead_id is not None and lead_id != person.pk:
        require_in_school(person, Action.KEEP_ACCOUNTS)
        found = Person.objects.filter(pk=lead_id, is_staff=True, is_active=True).first()
        if found is None:
            raise Gone("There is no such member of staff.", fix="Choose somebody from the list.")
        lead = found
    with deed(person.pk, now) as doing:
        group = TeachingGroup.objects.create(name=name, kind=kind, first=first, last=last)
        staffing.started(doing, group, lead)
        if not caseload:
            template = Template.objects.create(group=group, title=name)
            Section.objects.create(template=template, title=FIRST_SECTION)
        return group


def _checked(name: str, first: date, last: date) -> str:
    """The name of a class, tidied; ``Invalid`` where it or its days cannot be."""
    name = tidy(name)
    if not name or len(name) > LONGEST_NAME:
        raise Invalid(
            "The class has no name." if not name else f"The name has {len(name)} characters.",
            where="name",
            fix=f"Give it a name of at most {LONGEST_NAME} characters that students know.",
        )
    if last < first or (last - first).days > 366 * LONGEST_YEARS:
        raise Invalid(
            f"It would run from {first:%a %-d %b %Y} to {last:%a %-d %b %Y}.",
            where="last",
            fix=f"Let it end after it begins, within {LONGEST_YEARS} years.",
        )
    return name


@dataclass(frozen=True, slots=True)
class ClassFacts:
    """What a class is called and from when to when it runs; ``outside`` are hand-ins due on other days, by title.

    ``put_away``: since when; ``may_bring_back``: whether this person may.
    """

    title: str
    first: date
    last: date
    may_change: bool
    outside: list[str]
    put_away: datetime | None
    may_bring_back: bool
    begun: bool
    """Whether a student has put anything in: then it cannot be deleted."""


def class_facts(person: Person, group_id: int) -> ClassFacts:
    """What a class is called and when it runs."""
    standings = require_in_group(person, Action.SEE_STAFF, group_id)
    group = TeachingGroup.objects.get(pk=group_id)
    before = to_group_put_away(person, group_id) if group.put_away_at else standings
    may_bring_back = group.put_away_at is not None and decide(Action.KEEP_CLASS, before).allowed
    return _facts(group, decide(Action.KEEP_CLASS, standings).allowed, may_bring_back)


def _require_keeper(person: Person, group_id: int) -> None:
    """Refuse whoever does not keep the class; in one that is put away, whoever would not if it ran."""
    standings = to_group(person, group_id)
    if TeachingGroup.objects.filter(pk=group_id).exclude(put_away_at=None).exists():
        standings = to_group_put_away(person, group_id) or standings
    require(Action.KEEP_CLASS, standings)


def put_away(person: Person, group_id: int, now: datetime) -> None:
    """Put a class away: its staff and students read it, nobody changes it, it stands apart from the running ones.

    Decided here: nothing in it changes by that, its hand-ins and dates stay; it is on nobody's list of classes or of
    what is to be handed in. Put away once more it stays as it is.
    """
    _require_keeper(person, group_id)
    with deed(person.pk, now) as doing:
        group = TeachingGroup.objects.select_for_update().get(pk=group_id)
        if group.put_away_at is None:
            group.put_away_at = now
            group.save(update_fields=["put_away_at"])
            doing.record("class_put_away", group_id)


def bring_back(person: Person, group_id: int, now: datetime) -> None:
    """Bring a class back that was put away; one that runs stays as it is."""
    _require_keeper(person, group_id)
    with deed(person.pk, now) as doing:
        group = TeachingGroup.objects.select_for_update().get(pk=group_id)
        if group.put_away_at is not None:
            group.put_away_at = None
            group.save(update_fields=["put_away_at"])
            doing.record("class_brought_back", group_id)


def change_class(person: Person, group_id: int, name: str, first: date, last: date, now: datetime) -> ClassFacts:
    """Rename a class, move its days. Whoever was in it from its first day on is in it from the new one on.

    Decided here: nothing else moves with it. Hand-ins that are due outside of it stay as they are, and are named. The
    template keeps the title it has in the gallery.
    """
    require_in_group(person, Action.KEEP_CLASS, group_id)
    name = _checked(name, first, last)
    with deed(person.pk, now) as doing:
        group = TeachingGroup.objects.select_for_update().get(pk=group_id)
        if (group.name, group.first, group.last) != (name, first, last):
            from_the_start = Enrolment.objects.filter(group=group, first=group.first)
            from_the_start.exclude(last__lt=first).update(first=first)
            PeriodMembership.objects.filter(enrolment__group=group, enrolment__first=first, first=group.first).update(
                first=first
            )
            group.name, group.first, group.last = name, first, last
            group.save(update_fields=["name", "first", "last"])
            doing.record("class_changed", group_id, first=first.isoformat(), last=last.isoformat())
        return _facts(group, may_change=True, may_bring_back=False)


def _facts(group: TeachingGroup, may_change: bool, may_bring_back: bool) -> ClassFacts:
    due = HandIn.objects.filter(group=group, taken_away_at=None).exclude(due_day=None)
    outside = due.exclude(due_day__range=(group.first, group.last)).order_by("due_day", "pk")
    titles = list(outside.values_list("title", flat=True))
    return ClassFacts(
        group.name, group.first, group.last, may_change, titles, group.put_away_at, may_bring_back, begun(group.pk)
    )
