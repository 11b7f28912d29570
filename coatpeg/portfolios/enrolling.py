"""Applying a class list: students, enrolments and their portfolios in one step, with undo.

The list is planned anew under the group's row lock, so two people who apply lists at once never enrol anybody twice;
and under the school's, since user names and student numbers are unique in the whole school.
A portfolio is there the moment its student is enrolled (a caseload has none of its own). Decided here: whoever comes
with the first list of a class is enrolled from the class's first day, whoever comes later from the day given (today
unless said); a leaver's last day is the day given; a move to another period counts from today.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from django.contrib.auth.hashers import make_password

from coatpeg.core import pegs
from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.policy import Action
from coatpeg.core.roster_plan import WRITES, Line, Verdict
from coatpeg.core.usernames import username
from coatpeg.events.models import Event
from coatpeg.events.recording import Deed, deed
from coatpeg.people import class_lists, models
from coatpeg.people.access import require_in_group
from coatpeg.people.accounts import lock_names
from coatpeg.people.calendars import school_calendar
from coatpeg.portfolios.dealing import deal_missing
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.placing import (
    AT_ONCE,
    ONE_DAY,
    Applying,
    Written,
    locked_group,
    place_in_groups,
    place_in_periods,
)

ROSTER_VERBS = ("enrolled", "student_changed", "came_back", "left")


@dataclass(frozen=True, slots=True)
class Applied:
    """What a list did, and by which id it can be undone (None where nothing was written)."""

    change_id: int | None
    counts: Mapping[str, int]
    left: int


def apply_list(
    person: models.Person,
    group_id: int,
    of: class_lists.ClassList,
    now: datetime,
    *,
    leave: Iterable[int] = (),
    first: date | None = None,
) -> Applied:
    """Write what a list would do, without its bad lines; ``leave`` names enrolments that end today."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    today = school_calendar().local_day(now)
    with deed(person.pk, now) as doing:
        group = locked_group(group_id)
        lock_names()
        planned = class_lists.planned(group_id, of, now)
        written = Written()
        lines = [line for line in planned.lines if line.verdict in WRITES]
        joins = first or (today if group.enrolments.exists() else min(group.first, today))
        _write_lines(Applying(doing, group, written, today), lines, joins)
        leaving = set(leave)
        if not leaving <= set(planned.missing):
            raise Invalid(
                "A student was marked as left who is in the list, or has left already.",
                where="leave",
                fix="Look at the list again.",
            )
        _mark_left(doing, group_id, leaving, today, written)
        deal_missing(group_id, today)
        counts = Counter(line.verdict.value for line in planned.lines)
        if not written:
            return Applied(None, counts, 0)
        change = models.RosterChange.objects.create(group=group, person=person, at=now, data=vars(written))
        return Applied(change.pk, counts, len(leaving))


def _write_lines(to: Applying, lines: list[Line], joins: date) -> None:
    """All lines that write, kind by kind in a few statements each."""
    people = _new_people([line for line in lines if line.verdict is Verdict.NEW], to.written)
    for line in lines:
        _change_person(line, to.written)
    joining = [line for line in lines if line.verdict in (Verdict.NEW, Verdict.JOINS)]
    enrolments = _enrol(to, [line.person or people[line.number] for line in joining], joins)
    of_line = {line.number: one.pk for line, one in zip(joining, enrolments, strict=True)}
    for line in lines:
        if line.enrolment is not None:
            of_line[line.number] = line.enrolment
            if line.verdict is Verdict.BACK:
                _bring_back(to, line.enrolment, joins)
    place_in_periods(to, {of_line[line.number]: line.entry.period for line in lines if line.entry.period}, joins)
    place_in_groups(to, {of_line[line.number]: line.entry.group for line in lines if line.entry.group})
    for line in lines:
        to.doing.record(
            {Verdict.BACK: "came_back", Verdict.CHANGED: "student_changed"}.get(line.verdict, "enrolled"),
            to.group.pk,
            enrolment_id=of_line[line.number],
            fields=[change.field for change in line.changes],
        )


def _new_people(lines: list[Line], written: Written) -> dict[int, int]:
    """Accounts without a password for new students; person ids by line."""
    taken = {one or "" for one in models.Person.objects.values_list("username", flat=True)}
    unusable = make_password(None)
    made = models.Person.objects.bulk_create(
        (
            models.Person(
                family_name=line.entry.family,
                given_name=line.entry.given,
                email=line.entry.email,
                number=line.entry.number or None,
                username=username(line.entry.family, line.entry.given, taken),
                password=unusable,
            )
            for line in lines
        ),
        batch_size=AT_ONCE,
    )
    written.people += [one.pk for one in made]
    return {line.number: one.pk for line, one in zip(lines, made, strict=True)}


_COLUMNS = {"family": "family_name", "given": "given_name", "email": "email", "number": "number"}


def _change_person(line: Line, written: Written) -> None:
    """Write what the list says otherwise about the person."""
    mine = [change for change in line.changes if change.field in _COLUMNS]
    if line.person is None or not mine:
        return
    models.Person.objects.filter(pk=line.person).update(**{_COLUMNS[change.field]: change.new for change in mine})
    written.fields += [(line.person, _COLUMNS[change.field], change.old) for change in mine]


def _enrol(to: Applying, people: list[int], first: date) -> list[models.Enrolment]:
    """Enrolments with a peg picture each and, but for a caseload, a portfolio each."""
    taken = [pegs.Peg(*row) for row in to.group.enrolments.values_list("picture", "tint", "lap")]
    dealt = pegs.deal(len(people), taken, seed=to.group.pk)
    made = models.Enrolment.objects.bulk_create(
        (
            models.Enrolment(
                group=to.group, person_id=one, first=first, picture=peg.picture, tint=peg.tint, lap=peg.lap
            )
            for one, peg in zip(people, dealt, strict=True)
        ),
        batch_size=AT_ONCE,
    )
    if to.group.kind != models.TeachingGroup.Kind.CASELOAD:
        Portfolio.objects.bulk_create((Portfolio(enrolment=one) for one in made), batch_size=AT_ONCE)
    to.written.enrolments += [one.pk for one in made]
    return made


def _bring_back(to: Applying, enrolment_id: int, first: date) -> None:
    """End a leaver's absence: they are enrolled again from a day on."""
    enrolment = models.Enrolment.objects.get(pk=enrolment_id)
    assert enrolment.last is not None
    to.written.left.append((enrolment_id, enrolment.last.isoformat()))
    if first > enrolment.last + ONE_DAY:
        absence = models.Absence.objects.create(
            enrolment=enrolment, first=enrolment.last + ONE_DAY, last=first - ONE_DAY
        )
        to.written.absences.append(absence.pk)
    enrolment.last = None
    enrolment.save(update_fields=["last"])


def _mark_left(doing: Deed, group_id: int, leaving: set[int], today: date, written: Written) -> None:
    """Let enrolments end today; the portfolios stay as they are."""
    for enrolment in models.Enrolment.objects.filter(pk__in=leaving, group_id=group_id).order_by("pk"):
        if enrolment.last is not None and enrolment.last <= today:
            continue  # left already: their last day stays what it was
        written.left.append((enrolment.pk, enrolment.last.isoformat() if enrolment.last else None))
        enrolment.last = today
        enrolment.save(update_fields=["last"])
        doing.record("left", group_id, enrolment_id=enrolment.pk)


def mark_left(person: models.Person, group_id: int, leaving: set[int], now: datetime) -> Applied:
    """Mark students of a class as left, with undo."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    today = school_calendar().local_day(now)
    with deed(person.pk, now) as doing:
        group = locked_group(group_id)
        here = models.Enrolment.objects.filter(group=group, pk__in=leaving)
        if here.count() != len(leaving):
            raise Gone("One of them is not in this class.", fix="Load the list again.")
        written = Written()
        _mark_left(doing, group_id, leaving, today, written)
        if not written:
            return Applied(None, {}, 0)
        change = models.RosterChange.objects.create(group=group, person=person, at=now, data=vars(written))
        return Applied(change.pk, {}, len(written.left))


def undo(person: models.Person, group_id: int, change_id: int, now: datetime) -> None:
    """Take back what a list did. Refused where one of its new students has put in work meanwhile."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        locked_group(group_id)
        change = models.RosterChange.objects.filter(pk=change_id, group_id=group_id, undone_at=None).first()
        if change is None:
            raise Gone("This was undone already.", fix="Load the list again.")
        data = change.data
        # Whoever writes to a portfolio locks its row first: after this nobody begins to work in one of these.
        list(Portfolio.objects.select_for_update().filter(enrolment__in=data["enrolments"]).order_by("pk"))
        _refuse_with_work(data["enrolments"])
        _restore(data)
        Portfolio.objects.filter(enrolment__in=data["enrolments"]).delete()
        models.Enrolment.objects.filter(pk__in=data["enrolments"]).delete()
        nobody_else = models.Person.objects.filter(pk__in=data["people"], enrolments=None, staff_roles=None)
        nobody_else.delete()
        change.undone_at, change.data = now, {}
        change.save()
        doing.record("roster_undone", group_id, change=change_id)


def _refuse_with_work(enrolments: list[int]) -> None:
    """Whatever anybody did in or for these portfolios left an event."""
    since = Event.objects.filter(enrolment_id__in=enrolments).exclude(verb__in=ROSTER_VERBS)
    if since.exists():
        raise Refused(
            "Work has begun with some of these students, so adding them is not undone.",
            where="list",
            fix="Mark those as left who should not be in the class; their work stays readable.",
        )


def _restore(data: Mapping[str, Any]) -> None:
    """Put values back as they were before a list, in the reverse order."""
    for enrolment, last in data["left"]:
        models.Enrolment.objects.filter(pk=enrolment).update(last=last)
    models.Absence.objects.filter(pk__in=data["absences"]).delete()
    models.PeriodMembership.objects.filter(pk__in=data["memberships"]).delete()
    for membership, period in data["moved"]:
        models.PeriodMembership.objects.filter(pk=membership).update(period=period)
    for membership, last in data["ended"]:
        models.PeriodMembership.objects.filter(pk=membership).update(last=last)
    links = models.WorkingGroup.members.through
    for group, enrolment in data["groups"]:
        links.objects.filter(workinggroup_id=group, enrolment_id=enrolment).delete()
    links.objects.bulk_create(
        (links(workinggroup_id=group, enrolment_id=enrolment) for group, enrolment in data["ungrouped"]),
        ignore_conflicts=True,
    )
    for person, column, value in data["fields"]:
        models.Person.objects.filter(pk=person).update(**{column: value or (None if column == "number" else "")})
