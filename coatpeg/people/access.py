"""How a person stands to a group or to a student in it, and asking the policy.

A student stands to their class as a member, to their own portfolio as its owner, and to everyone
else's as a stranger. The lead and co-teachers of a caseload stand in the relation *caseload* to its
students' work in other classes. For a stranger a thing does not exist (``Gone``); for a member who may
not do something it is refused, with the reason.
"""

from __future__ import annotations

from coatpeg.core.errors import Gone, Refused
from coatpeg.core.policy import Action, Relation, Role, decide
from coatpeg.people.models import Enrolment, Person, StaffRole, TeachingGroup

Standings = frozenset[tuple[Role, Relation]]


def to_group(person: Person, group_id: int) -> Standings:
    """How a person stands to a teaching group: by staff role, else as an enrolled student."""
    role = StaffRole.objects.filter(person=person, group_id=group_id).values_list("role", flat=True).first()
    if role:
        return frozenset({(Role(role), Relation.CLASS)})
    enrolled = Enrolment.objects.filter(person=person, group_id=group_id).exclude(
        group__kind=TeachingGroup.Kind.CASELOAD
    )
    return frozenset({(Role.STUDENT, Relation.CLASS)}) if enrolled.exists() else frozenset()


def to_student(person: Person, enrolment: Enrolment) -> Standings:
    """How a person stands to one student's portfolio in one group."""
    if enrolment.person_id == person.pk:
        return frozenset({(Role.STUDENT, Relation.OWN)})
    role = StaffRole.objects.filter(person=person, group_id=enrolment.group_id).values_list("role", flat=True).first()
    found = {(Role(role), Relation.CLASS)} if role else set()
    in_caseload = StaffRole.objects.filter(
        person=person,
        group__kind=TeachingGroup.Kind.CASELOAD,
        group__enrolments__person_id=enrolment.person_id,
    ).values_list("role", flat=True)
    found |= {(Role(one), Relation.CASELOAD) for one in in_caseload}
    return frozenset(found)


def to_school(person: Person) -> Standings:
    """How a person stands to the school as a whole: as its administrator, by their roles in any group, as a student.

    A member of staff who is in no group yet stands there as an observer does.
    """
    roles = {Role(one) for one in StaffRole.objects.filter(person=person).values_list("role", flat=True).distinct()}
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


def require_in_group(person: Person, action: Action, group_id: int) -> Standings:
    """``require`` towards a teaching group; returns how the person stands to it."""
    standings = to_group(person, group_id)
    require(action, standings)
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
