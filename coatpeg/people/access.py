"""How a person stands to a group or to a student in it, and asking the policy.

A student stands to their class as a member, to their own portfolio as its owner, and to everyone
else's as a stranger. The lead and co-teachers of a caseload stand in the relation *caseload* to its
students' work in other classes. For a stranger a thing does not exist (``Gone``); for a member who may
not do something it is refused, with the reason.
"""

from __future__ import annotations

from collections.abc import Collection
from datetime import date, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django.db.models import DateField, IntegerField, OuterRef, Q, QuerySet, Subquery, Value
from django.utils import timezone

from coatpeg.core.calendar.school_days import Span
from coatpeg.core.errors import Gone, Refused
from coatpeg.core.policy import Action, Relation, Role, decide
from coatpeg.events.prepared import Prepared
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person, School, StaffRole, TeachingGroup

Standings = frozenset[tuple[Role, Relation]]
AFTERWARDS = timedelta(days=60)
"""How long after its last day a class is still worked in as before: for the last marks and reports."""
NOBODY: Standings = frozenset()

_ZONE = Subquery(School.objects.order_by("pk").values("zone")[:1])


def _standing_as(person_id: int, group_id: int) -> QuerySet[Any, Any]:
    """A person's role in a group, or enrolment in it: (role, enrolment, first and last day of it, the group's last,
    put away, zone).
    """
    as_staff = StaffRole.objects.filter(person_id=person_id, group_id=group_id).values_list(
        "role", Value(None, IntegerField()), "first", "last", "group__last", "group__put_away_at", _ZONE
    )
    as_student = (
        Enrolment.objects.filter(person_id=person_id, group_id=group_id)
        .exclude(group__kind=TeachingGroup.Kind.CASELOAD)
        .values_list(Value(Role.STUDENT.value), "pk", "first", "last", "group__last", "group__put_away_at", _ZONE)
    )
    return as_staff.union(as_student, all=True)


_FOLLOWER = Prepared(_standing_as)


def _today(zone: str | None) -> date:
    return timezone.now().astimezone(ZoneInfo(zone or "UTC")).date()


def role_of_staff(role: Role, group_last: date, today: date, *, put_away: bool) -> Role | None:
    """What somebody on the staff of a class is on a day: long after it, its lead reads it, others are nothing.

    In a class that is put away all of them read.
    """
    if put_away:
        return Role.OBSERVER
    if today <= group_last + AFTERWARDS:
        return role
    return Role.OBSERVER if role is Role.LEAD else None


def role_of_student(left_on: date | None, group_last: date, today: date, *, put_away: bool) -> Role | None:
    """What a student is in a class on a day: a leaver reads until it ends; a finished class stays readable."""
    if left_on is not None and left_on < today:
        return Role.LEAVER if today <= group_last else None
    if put_away:
        return Role.LEAVER
    return Role.STUDENT if today <= group_last + AFTERWARDS else Role.LEAVER


def follower(person: Person, group_id: int) -> tuple[Standings, int | None]:
    """How a person stands to a group, and their enrolment where they are its student: one query, for a poll."""
    if person.only_in not in (None, group_id):
        return NOBODY, None
    for role, enrolment, first, left_on, group_last, away, zone in sorted(
        _FOLLOWER.run(person.pk, group_id), key=lambda row: row[1] is not None
    ):
        today = _today(zone)
        if enrolment is None:
            if not Span(first or date.min, left_on).holds(today):
                continue
            found = role_of_staff(Role(role), group_last, today, put_away=away is not None)
        else:
            found = role_of_student(left_on, group_last, today, put_away=away is not None)
        return (frozenset({(found, Relation.CLASS)}) if found else NOBODY), enrolment
    return NOBODY, None


def to_group(person: Person, group_id: int) -> Standings:
    """How a person stands to a teaching group: by staff role, else as an enrolled student. One query."""
    return follower(person, group_id)[0]


def to_group_put_away(person: Person, group_id: int) -> Standings:
    """How somebody on the staff would stand to a group if it were not put away: for bringing it back."""
    if person.only_in is not None:
        return NOBODY
    roles = StaffRole.objects.on(_local_today()).filter(person=person, group_id=group_id)
    role = roles.values_list("role", flat=True).first()
    return frozenset({(Role(role), Relation.CLASS)}) if role else NOBODY


def to_student(person: Person, enrolment: Enrolment) -> Standings:
    """How a person stands to one student's portfolio in one group."""
    if person.only_in not in (None, enrolment.group_id):
        return NOBODY
    if enrolment.person_id == person.pk:
        return _to_own(enrolment)
    found = set()
    for role, of_caseload, group_last, left_on, away, first, last, zone in _REVIEWERS.run(
        person.pk, enrolment.group_id, person.pk, enrolment.person_id
    ):
        today = _today(zone)
        if not Span(first or date.min, last).holds(today):
            continue
        if of_caseload:
            if away is None and today <= group_last and (left_on is None or today <= left_on):
                found.add((Role(role), Relation.CASELOAD))
        elif standing := role_of_staff(Role(role), group_last, today, put_away=away is not None):
            found.add((standing, Relation.CLASS))
    return frozenset(found)


def _to_own(enrolment: Enrolment) -> Standings:
    """As the student of it: no query while the class runs."""
    away = enrolment.group.put_away_at is not None
    if enrolment.last is None and not away and timezone.now().date() < enrolment.group.last:
        return frozenset({(Role.STUDENT, Relation.OWN)})
    today = _local_today()
    own = role_of_student(enrolment.last, enrolment.group.last, today, put_away=away)
    return frozenset({(own, Relation.OWN)}) if own else NOBODY


def _reviewing(person_id: int, group_id: int, again_id: int, student_id: int) -> QuerySet[Any, Any]:
    """A person's role in a student's class, and in the caseloads the student is in."""
    in_class = StaffRole.objects.filter(person_id=person_id, group_id=group_id).values_list(
        "role", Value(0), "group__last", Value(None, DateField()), "group__put_away_at", "first", "last", _ZONE
    )
    in_caseload = StaffRole.objects.filter(
        person_id=again_id, group__kind=TeachingGroup.Kind.CASELOAD, group__enrolments__person_id=student_id
    ).values_list(
        "role", Value(1), "group__last", "group__enrolments__last", "group__put_away_at", "first", "last", _ZONE
    )
    return in_class.union(in_caseload, all=True)


_REVIEWERS = Prepared(_reviewing)


def has_student(person: Person, student_id: int) -> Standings:
    """How a person stands to a student of the school as such: by the running classes, no caseloads, they have them in.

    A lead of one of them, or the school's administrator.
    """
    found = {(Role.ADMINISTRATOR, Relation.SCHOOL)} if person.is_administrator else set()
    if any(role is Role.LEAD for role in _roles_over(person.pk, [student_id])[student_id]):
        found.add((Role.LEAD, Relation.CLASS))
    return frozenset(found)


def has_alone(person: Person, student_id: int) -> Standings:
    """The same, but as a lead only where they lead every running class that the student is in."""
    found = {(Role.ADMINISTRATOR, Relation.SCHOOL)} if person.is_administrator else set()
    roles = _roles_over(person.pk, [student_id])[student_id]
    if roles and all(role is Role.LEAD for role in roles):
        found.add((Role.LEAD, Relation.CLASS))
    return frozenset(found)


def led_students(person: Person) -> tuple[frozenset[int], frozenset[int]]:
    """Students whom a person leads in some running class, and those whom nobody else has in one: two queries."""
    today = _local_today()
    leading = StaffRole.objects.on(today).filter(person=person, role=Role.LEAD.value)
    mine = _running(today).filter(group__in=leading.values("group_id"))
    some = frozenset(mine.values_list("person_id", flat=True))
    roles = _roles_over(person.pk, some, today)
    return some, frozenset(pk for pk in some if all(role is Role.LEAD for role in roles[pk]))


def leads_of(student_id: int) -> list[int]:
    """The leads of the running classes, no caseloads, that a student is in."""
    today = _local_today()
    groups = _running(today).filter(person_id=student_id).values("group_id")
    leads = StaffRole.objects.on(today).filter(group__in=groups, role=Role.LEAD.value)
    return list(leads.values_list("person_id", flat=True))


def _local_today() -> date:
    return school_calendar().local_day(timezone.now())


def _running(today: date) -> QuerySet[Enrolment]:
    """Enrolments of today in running classes, no caseloads."""
    running = Enrolment.objects.filter(
        Q(last=None) | Q(last__gte=today), group__last__gte=today, group__put_away_at=None
    )
    return running.exclude(group__kind=TeachingGroup.Kind.CASELOAD)


def _roles_over(person_id: int, students: Collection[int], today: date | None = None) -> dict[int, list[Role | None]]:
    """For each running class of each student, what the person is in it."""
    today = today or _local_today()
    standing = StaffRole.objects.on(today).filter(person_id=person_id, group_id=OuterRef("group_id"))
    own = standing.values("role")[:1]
    found: dict[int, list[Role | None]] = {pk: [] for pk in students}
    for pk, role in (
        _running(today).filter(person_id__in=students).annotate(mine=Subquery(own)).values_list("person_id", "mine")
    ):
        found[pk].append(Role(role) if role else None)
    return found


def to_school(person: Person) -> Standings:
    """How a person stands to the school as a whole: as its administrator, by their roles in any group, as a student.

    A member of staff who is in no group yet stands there as an observer does.
    """
    if person.only_in is not None:
        return frozenset({(Role.STUDENT, Relation.SCHOOL)})
    standing = StaffRole.objects.on(_local_today()).filter(person=person)
    roles = {Role(one) for one in standing.values_list("role", flat=True).distinct()}
    if person.is_administrator:
        roles.add(Role.ADMINISTRATOR)
    if not roles and person.is_staff:
        roles.add(Role.OBSERVER)
    if not roles and Enrolment.objects.filter(person=person).exists():
        roles.add(Role.STUDENT)
    return frozenset((role, Relation.SCHOOL) for role in roles)


def require(action: Action, standings: Standings) -> None:
    """Raise ``Gone`` for a stranger and ``Refused`` for a member who may not do this."""
    decision = decide(action, standings)
    if decision.allowed:
        return
    if not standings:
        raise Gone("There is nothing here for you.", fix="Go back, or ask the class's teacher to add you.")
    raise Refused(decision.because, fix="Ask the lead of the class if you need this.")


def require_account(person: Person, action: Action) -> None:
    """``require`` towards a person's own account, which a sign-in card opens in part only."""
    role = Role.OBSERVER if person.is_staff else Role.STUDENT
    require(action, frozenset({(role, Relation.OWN if person.only_in is None else Relation.CARD)}))


def require_in_group(person: Person, action: Action, group_id: int) -> Standings:
    """``require`` towards a teaching group; returns how the person stands to it.

    Where it is put away, that is what is said to its staff.
    """
    standings = to_group(person, group_id)
    try:
        require(action, standings)
    except Refused:
        if not TeachingGroup.objects.filter(pk=group_id).exclude(put_away_at=None).exists():
            raise
        raise Refused(
            "This class is put away: it can be read, and nothing in it changed.",
            fix="Its lead can bring it back, under Set-up.",
        ) from None
    return standings


def require_in_school(person: Person, action: Action) -> Standings:
    """``require`` towards what belongs to the whole school."""
    standings = to_school(person)
    require(action, standings)
    return standings


def require_for_student(person: Person, action: Action, enrolment: Enrolment) -> Standings:
    """``require`` towards one student; returns how the person stands to them.

    A classmate is a stranger here: whether the other's portfolio exists is not said.
    """
    standings = to_student(person, enrolment)
    require(action, standings)
    return standings
