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

from coatpeg.core.errors import Gone, Invalid, Refused, Stale
from coatpeg.core.people import pegs
from coatpeg.core.people.roster_plan import WRITES, Line, Verdict
from coatpeg.core.people.usernames import username
from coatpeg.core.policy import Action
from coatpeg.cupboard.giving import for_joiners
from coatpeg.events.models import Event
from coatpeg.events.recording import Deed, deed
from coatpeg.outlines.dealing import deal_missing
from coatpeg.people import models
from coatpeg.people.access import require_in_group
from coatpeg.people.accounts import lock_names
from coatpeg.people.calendars import check_class_days, school_calendar
from coatpeg.people.groups import Moved, put_back
from coatpeg.portfolios.models import Evidence, Portfolio
from coatpeg.setup.roster import class_lists, join_requests
from coatpeg.setup.roster.memberships import (
    AT_ONCE,
    ONE_DAY,
    Applying,
    RosterWrites,
    locked_group,
    place_in_groups,
    place_in_periods,
)
from coatpeg.sharing.settling import fill_anew, fill_for_joiners

ROSTER_VERBS = ("enrolled", "student_changed", "came_back", "left", "copy_given")
"""What happens to a student by a list; what the class was given before, whoever joins is given with it."""


@dataclass(frozen=True, slots=True)
class Applied:
    """What a list did, and by which id it can be undone (None where nothing was written).

    ``missing`` are the enrolments that it does not name.
    """

    change_id: int | None
    counts: Mapping[str, int]
    left: int
    missing: tuple[int, ...] = ()


def apply_list(
    person: models.Person,
    group_id: int,
    of: class_lists.ClassList,
    now: datetime,
    *,
    leave: Iterable[int] = (),
    first: date | None = None,
    seen: str | None = None,
) -> Applied:
    """Write what a list would do, without its bad lines; ``leave`` names enrolments that end today.

    ``seen`` is the digest of the plan that the person has seen (None: a list that comes by itself): where it would do
    something else by now, nothing is written. Lines that are requests become such.
    """
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    today = school_calendar().local_day(now)
    check_class_days(group_id, first=first)
    with deed(person.pk, now) as doing:
        group = locked_group(group_id)
        lock_names()
        planned = class_lists.planned(person, group_id, of, now)
        if seen is not None and seen != class_lists.digest(planned):
            raise Stale(
                "The class or the school's students have changed since you looked at this list.",
                where="list",
                fix="Look at what it does now, then add it.",
            )
        writes = RosterWrites()
        lines = [line for line in planned.lines if line.verdict in WRITES]
        joins = first or (today if group.enrolments.exists() else min(group.first, today))
        write_lines(Applying(doing, group, writes, today), lines, joins)
        leaving = set(leave)
        if not leaving <= set(planned.missing):
            raise Invalid(
                "A student was marked as left who is in the list, or has left already.",
                where="leave",
                fix="Look at the list again.",
            )
        end_places(doing, group_id, leaving, today, writes)
        deal_missing(group_id, today)
        for_joiners(doing, group_id)
        fill_for_joiners(group_id, now)
        join_requests.ask(doing, person, group, [one for one in planned.lines if one.verdict is Verdict.ASKED], first)
        counts = Counter(line.verdict.value for line in planned.lines)
        if not writes:
            return Applied(None, counts, 0, planned.missing)
        change = models.RosterChange.objects.create(group=group, person=person, at=now, data=vars(writes))
        return Applied(change.pk, counts, len(leaving), planned.missing)


def write_lines(to: Applying, lines: list[Line], joins: date) -> None:
    """All lines that write, kind by kind in a few statements each."""
    people = _new_people([line for line in lines if line.verdict is Verdict.NEW], to.writes)
    for line in lines:
        _change_person(line, to.writes)
    joining = [line for line in lines if line.verdict in (Verdict.NEW, Verdict.JOINS)]
    enrolments = enrol(to, [line.person or people[line.number] for line in joining], joins)
    of_line = {line.number: one.pk for line, one in zip(joining, enrolments, strict=True)}
    for line in lines:
        if line.enrolment is not None:
            of_line[line.number] = line.enrolment
            if line.verdict is Verdict.BACK:
                begin_again(to, line.enrolment, joins)
    place_in_periods(to, {of_line[line.number]: line.entry.period for line in lines if line.entry.period}, joins)
    place_in_groups(to, {of_line[line.number]: line.entry.group for line in lines if line.entry.group})
    for line in lines:
        to.doing.record(
            {Verdict.BACK: "came_back", Verdict.CHANGED: "student_changed"}.get(line.verdict, "enrolled"),
            to.group.pk,
            enrolment_id=of_line[line.number],
            fields=[change.field for change in line.changes],
        )


def _new_people(lines: list[Line], writes: RosterWrites) -> dict[int, int]:
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
                username=username(line.entry.family, line.entry.given, taken, family_first=line.entry.family_first),
                family_first=line.entry.family_first,
                password=unusable,
                to_complete=line.unnamed,
            )
            for line in lines
        ),
        batch_size=AT_ONCE,
    )
    writes.people += [one.pk for one in made]
    return {line.number: one.pk for line, one in zip(lines, made, strict=True)}


_COLUMNS = {
    "family": "family_name",
    "given": "given_name",
    "order": "family_first",
    "email": "email",
    "number": "number",
}


def _change_person(line: Line, writes: RosterWrites) -> None:
    """Write what the list says otherwise about the person."""
    mine = [change for change in line.changes if change.field in _COLUMNS]
    if line.person is None or not mine:
        return
    written: dict[str, Any] = {_COLUMNS[change.field]: change.new for change in mine if change.field != "order"}
    before: dict[str, Any] = {_COLUMNS[change.field]: change.old for change in mine if change.field != "order"}
    if any(change.field == "order" for change in mine):
        written["family_first"], before["family_first"] = line.entry.family_first, not line.entry.family_first
    if {"family_name", "given_name"} & written.keys():
        written["to_complete"] = False
    models.Person.objects.filter(pk=line.person).update(**written)
    writes.fields += [(line.person, column, value) for column, value in before.items()]


def enrol(to: Applying, people: list[int], first: date) -> list[models.Enrolment]:
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
    to.writes.enrolments += [one.pk for one in made]
    return made


def begin_again(to: Applying, enrolment_id: int, first: date) -> None:
    """End a leaver's absence: they are enrolled again from a day on."""
    enrolment = models.Enrolment.objects.get(pk=enrolment_id)
    assert enrolment.last is not None
    to.writes.left.append((enrolment_id, enrolment.last.isoformat()))
    if first > enrolment.last + ONE_DAY:
        absence = models.Absence.objects.create(
            enrolment=enrolment, first=enrolment.last + ONE_DAY, last=first - ONE_DAY
        )
        to.writes.absences.append(absence.pk)
    enrolment.last = None
    enrolment.save(update_fields=["last"])


def end_places(doing: Deed, group_id: int, leaving: set[int], today: date, writes: RosterWrites) -> None:
    """Let enrolments end today; the portfolios stay as they are."""
    for enrolment in models.Enrolment.objects.filter(pk__in=leaving, group_id=group_id).order_by("pk"):
        if enrolment.last is not None and enrolment.last <= today:
            continue  # left already: their last day stays what it was
        writes.left.append((enrolment.pk, enrolment.last.isoformat() if enrolment.last else None))
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
        writes = RosterWrites()
        end_places(doing, group_id, leaving, today, writes)
        if not writes:
            return Applied(None, {}, 0)
        change = models.RosterChange.objects.create(group=group, person=person, at=now, data=vars(writes))
        return Applied(change.pk, {}, len(writes.left))


def undo(person: models.Person, group_id: int, change_id: int, now: datetime) -> None:
    """Take back what a list did. Refused where one of its new students has put in work meanwhile, or where a later
    change of the list stands on it: what was is put back in the reverse order.
    """
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        locked_group(group_id)
        change = models.RosterChange.objects.filter(pk=change_id, group_id=group_id, undone_at=None).first()
        if change is None:
            raise Gone("This was undone already.", fix="Load the list again.")
        later = models.RosterChange.objects.filter(group_id=group_id, undone_at=None, pk__gt=change_id).order_by("-pk")
        if newest := later.select_related("person").first():
            raise Refused(
                f"The list was changed again since, by {newest.person.full_name}.",
                where="list",
                fix="Undo the later change first: the class list has them all.",
            )
        data = change.data
        # Whoever writes to a portfolio locks its row first: after this nobody begins to work in one of these.
        list(Portfolio.objects.select_for_update().filter(enrolment__in=data["enrolments"]).order_by("pk"))
        _refuse_with_work(data["enrolments"])
        _restore(data, change.at)
        fill_anew({place for place, _ in data["ungrouped"]}, now)
        # What lies in them came along with the student: it is a copy.
        Evidence.objects.filter(portfolio__enrolment__in=data["enrolments"]).delete()
        Portfolio.objects.filter(enrolment__in=data["enrolments"]).delete()
        models.Enrolment.objects.filter(pk__in=data["enrolments"]).delete()
        nobody_else = models.Person.objects.filter(pk__in=data["people"], enrolments=None, staff_roles=None)
        joined = models.PutTogether.objects.filter(undone_at=None)
        nobody_else = nobody_else.exclude(pk__in=joined.values("kept")).exclude(pk__in=joined.values("other"))
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


def _restore(data: Mapping[str, Any], at: datetime) -> None:
    """Put values back as they were before a list of a moment, in the reverse order."""
    for enrolment, last in data["left"]:
        models.Enrolment.objects.filter(pk=enrolment).update(last=last)
    models.Absence.objects.filter(pk__in=data["absences"]).delete()
    models.PeriodMembership.objects.filter(pk__in=data["memberships"]).delete()
    for membership, period in data["moved"]:
        models.PeriodMembership.objects.filter(pk=membership).update(period=period)
    for membership, last in data["ended"]:
        models.PeriodMembership.objects.filter(pk=membership).update(last=last)
    put_back(Moved(data["groups"], data["ungrouped"]), at)
    for person, column, value in data["fields"]:
        kept = value if isinstance(value, bool) else value or (None if column == "number" else "")
        models.Person.objects.filter(pk=person).update(**{column: kept})


MOST_SHOWN = 30


def changes_of(person: models.Person, group_id: int) -> list[dict[str, Any]]:
    """The changes of a class's list that stand, newest first: when, by whom, how much, from which file."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    standing = models.RosterChange.objects.filter(group_id=group_id, undone_at=None).select_related("person")
    shown = list(standing.order_by("-pk")[:MOST_SHOWN])
    drops = dict(models.RosterDrop.objects.filter(change__in=shown).values_list("change_id", "name"))
    return [
        {
            "id": one.pk,
            "at": one.at,
            "by": one.person.full_name,
            "file": drops.get(one.pk, ""),
            "added": len(one.data["enrolments"]),
            "changed": len({row[0] for row in one.data["fields"]}),
            "placed": len(one.data["memberships"]) + len(one.data["moved"]) + len(one.data["groups"]),
            "left": len(one.data["left"]),
            "newest": place == 0,
        }
        for place, one in enumerate(shown)
    ]
