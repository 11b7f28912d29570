"""The staff of a class: who is in it as what, adding, changing, taking out; and the school's staff accounts.

Decided here: only people with a staff account can be given a role, so a student never reaches another's work by a slip
of the list; the last lead of a class stays until there is another; a new account gets a first password that is shown
once and kept nowhere readable. Somebody may be in a class from a day to a day only (a cover teacher): outside of them
they stand to it as a stranger does, and the last lead *for good* stays. Nobody says their own days. A class is handed
over in one step: the other leads it from that moment, whoever hands it over stays as what they chose, or not at all.
"""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from django.contrib.auth.hashers import make_password
from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from django.db.models import Q, QuerySet

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.handins import receipts
from coatpeg.core.people.names import search_key, sort_key
from coatpeg.core.people.person_names import tidy
from coatpeg.core.people.usernames import username as made_username
from coatpeg.core.policy import Action, Decision, Role, decide, decide_role
from coatpeg.events.recording import Deed, deed
from coatpeg.people.access import require_in_group, require_in_school
from coatpeg.people.accounts import lock_names
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person, StaffRole, TeachingGroup

STAFF_ROLES = (Role.LEAD, Role.CO_TEACHER, Role.MARKER, Role.OBSERVER)
MAY = {
    Role.LEAD: "Everything in the class, its staff and its list included.",
    Role.CO_TEACHER: "The same as the lead, except saying who is lead and renaming the class.",
    Role.MARKER: "Reads everything, marks submissions, sends back and accepts.",
    Role.OBSERVER: "Reads everything, changes nothing.",
}
"""What each role can do, in words; a test holds them against the policy's table."""
MOST_FOUND = 8


@dataclass(frozen=True, slots=True)
class NewAccount:
    """A staff account just made, with the first password, which is shown this once."""

    person: Person
    password: str


def staff_of(person: Person, group_id: int) -> dict[str, Any]:
    """The staff of a class by name, what each role may do, and what this person may make of whom."""
    standings = require_in_group(person, Action.SEE_STAFF, group_id)
    rows = StaffRole.objects.filter(group_id=group_id).select_related("person")
    mine = next((Role(one.role) for one in rows if one.person_id == person.pk), None)
    hands_over = decide(Action.KEEP_CLASS, standings).allowed
    giver = mine if decide(Action.KEEP_STAFF, standings).allowed else None
    ordered = sorted(rows, key=lambda one: sort_key(one.person.family_name, one.person.given_name, one.person_id))
    return {
        "staff": [
            {
                "person": one.person_id,
                "name": one.person.listed,
                "email": one.person.email,
                "role": one.role,
                "first": one.first,
                "last": one.last,
                "me": one.person_id == person.pk,
                "may_become": [role for role in STAFF_ROLES if _may(giver, one, role, person)] if giver else [],
                "may_take_out": giver is not None and _may(giver, one, None, person),
            }
            for one in ordered
        ],
        "roles": [{"role": role.value, "may": MAY[role]} for role in STAFF_ROLES],
        "may_hand_over": hands_over,
        "may_add": [role for role in STAFF_ROLES if giver and decide_role(giver, None, role, own=False).allowed],
    }


def _may(giver: Role, one: StaffRole, role: Role | None, person: Person) -> bool:
    return decide_role(giver, Role(one.role), role, own=one.person_id == person.pk).allowed


def find_staff(person: Person, group_id: int, text: str) -> list[dict[str, Any]]:
    """Staff accounts by a part of the name or address, who are not in the class yet."""
    require_in_group(person, Action.KEEP_STAFF, group_id)
    return _found(Person.objects.exclude(staff_roles__group_id=group_id), text)


def find_colleagues(person: Person, text: str) -> list[dict[str, Any]]:
    """The same for a class that is being started: everybody but oneself."""
    require_in_school(person, Action.START_CLASS)
    return _found(Person.objects.exclude(pk=person.pk), text)


def _found(people: QuerySet[Person], text: str) -> list[dict[str, Any]]:
    wanted = search_key(tidy(text))
    if len(wanted) < 2:
        return []
    people = people.filter(is_staff=True, is_active=True)
    found = [
        one
        for one in people
        if all(part in search_key(f"{one.given_name} {one.family_name} {one.email}") for part in wanted.split())
    ]
    found.sort(key=lambda one: sort_key(one.family_name, one.given_name, one.pk))
    return [{"person": one.pk, "name": one.listed, "email": one.email} for one in found[:MOST_FOUND]]


@dataclass(frozen=True, slots=True)
class Days:
    """From when to when somebody is in a class, both included; None: from ever, for good."""

    first: date | None = None
    last: date | None = None

    def checked(self, today: date) -> Days:
        """The same; ``Invalid`` where nobody would ever be in the class by it."""
        if self.first and self.last and self.last < self.first:
            raise Invalid("The last day is before the first.", where="last", fix="Choose a later day.")
        if self.last and self.last < today:
            raise Invalid(
                "The last day is over already.",
                where="last",
                fix="Choose a day to come, or take them out of the class.",
            )
        return self


ALWAYS = Days()


def set_role(
    person: Person, group_id: int, other_id: int, role: Role | None, now: datetime, days: Days = ALWAYS
) -> None:
    """Give a member of staff a role in a class, for good or on some days, change it, or (None) take them out."""
    require_in_group(person, Action.KEEP_STAFF, group_id)
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        _set(doing, person, group_id, other_id, role, days)


def hand_over(person: Person, group_id: int, other_id: int, stays: Role | None, now: datetime) -> None:
    """Make somebody else lead of a class for good, and oneself what one stays as; None: not at all."""
    require_in_group(person, Action.KEEP_CLASS, group_id)
    if other_id == person.pk or stays is Role.LEAD:
        raise Invalid("A class is handed over to somebody else.", where="person", fix="Choose a colleague.")
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        _set(doing, person, group_id, other_id, Role.LEAD, ALWAYS)
        _set(doing, person, group_id, person.pk, stays, ALWAYS)


def _set(doing: Deed, person: Person, group_id: int, other_id: int, role: Role | None, days: Days) -> None:
    today = school_calendar().local_day(doing.now)
    own = StaffRole.objects.on(today).filter(group_id=group_id, person=person).first()
    standing = StaffRole.objects.filter(group_id=group_id, person_id=other_id).first()
    if standing is None and role is None:
        raise Gone("They are not in this class.", fix="Load the list again.")
    before = Role(standing.role) if standing else None
    decision = decide_role(Role(own.role), before, role, own=other_id == person.pk) if own else Decision(False)
    if not decision.allowed:
        raise Refused(decision.because, where="role", fix="Ask a lead of the class.")
    had = Days(standing.first, standing.last) if standing else ALWAYS
    if role is not None and days != had:
        days.checked(today)
        if other_id == person.pk:
            raise Refused(
                "Nobody says from when to when they are in a class themselves.", where="last", fix="Ask its lead."
            )
    if before is Role.LEAD and (role is not Role.LEAD or (days != had and days != ALWAYS)):
        _refuse_last_lead(group_id, other_id, today)
    if role is None:
        StaffRole.objects.filter(group_id=group_id, person_id=other_id).delete()
    elif standing:
        standing.role, standing.first, standing.last = role.value, days.first, days.last
        standing.save(update_fields=["role", "first", "last"])
    else:
        _add(group_id, other_id, role, days)
    of_days = [day.isoformat() if day else None for day in (days.first, days.last)] if days != ALWAYS else None
    doing.record("staff_changed", group_id, person=other_id, role=role.value if role else None, days=of_days)


def _add(group_id: int, other_id: int, role: Role, days: Days) -> None:
    other = Person.objects.filter(pk=other_id, is_staff=True, is_active=True).first()
    if other is None:
        raise Gone("There is no such member of staff.", fix="Choose somebody from the list.")
    if role not in STAFF_ROLES:
        raise Invalid(f"“{role}” is not a role of staff.", where="role", fix="Choose one of the four roles.")
    StaffRole.objects.create(group_id=group_id, person=other, role=role.value, first=days.first, last=days.last)


def _refuse_last_lead(group_id: int, other_id: int, today: date) -> None:
    leads = StaffRole.objects.on(today).filter(group_id=group_id, role=Role.LEAD.value, last=None)
    leads = leads.exclude(person_id=other_id)
    if not leads.exists():
        raise Refused(
            "This is the only lead of the class.",
            where="role",
            fix="Make somebody else lead first; then this can be changed.",
        )


def accounts(person: Person) -> list[dict[str, Any]]:
    """All staff accounts by name, with the classes they are in."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    people = Person.objects.filter(is_staff=True).prefetch_related("staff_roles__group")
    ordered = sorted(people, key=lambda one: sort_key(one.family_name, one.given_name, one.pk))
    return [account_data(one) for one in ordered]


def account_data(one: Person) -> dict[str, Any]:
    """A staff account as the administrator sees it: no student work follows from it."""
    return {
        "person": one.pk,
        "name": one.listed,
        "username": one.username or "",
        "email": one.email,
        "active": one.is_active,
        "administrator": one.is_administrator,
        "classes": sorted(role.group.name for role in one.staff_roles.all()),
    }


def add_account(
    person: Person, family: str, given: str, email: str, now: datetime, *, administrator: bool = False
) -> NewAccount:
    """Make a staff account with a first password."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    family, given, email = tidy(family), tidy(given), email.strip().lower()
    if not family and not given:
        raise Invalid("The account has no name.", where="name", fix="Give at least one name.")
    password = first_password()
    with deed(person.pk, now):
        lock_names()
        _check_email(email)
        taken = {one or "" for one in Person.objects.values_list("username", flat=True)}
        made = Person.objects.create(
            family_name=family,
            given_name=given,
            email=email,
            username=made_username(family, given, taken),
            password=make_password(password),
            is_staff=True,
            is_administrator=administrator,
        )
    return NewAccount(made, password)


def _check_email(email: str) -> None:
    if not email:
        return
    try:
        validate_email(email)
    except ValidationError:
        raise Invalid(
            f"“{email}” is not a complete e-mail address.", where="email", fix="Fix it, or leave it empty."
        ) from None
    same = Person.objects.filter(Q(email__iexact=email), is_staff=True).first()
    if same:
        raise Invalid(
            f"{same.full_name} has this address already.",
            where="email",
            fix="Use that account, or give another address.",
        )


def first_password() -> str:
    """A password that can be read out: three words of the receipts' list and a number, about 30 bits."""
    words = [secrets.choice(receipts.WORDS).lower() for _ in range(3)]
    return "-".join([*words, str(secrets.randbelow(9000) + 1000)])


def set_active(person: Person, other_id: int, now: datetime, *, active: bool) -> Person:
    """Close an account, a student's too, or open it again; one's own stays open. A closed one's sessions are over."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    with deed(person.pk, now):
        other = Person.objects.select_for_update().filter(pk=other_id).first()
        if other is None:
            raise Gone("There is no such account.", fix="Load the list again.")
        if active and other.same_as_id is not None:
            raise Refused(
                "This account was put together with another one.", where="account", fix="Take them apart first."
            )
        if other.pk == person.pk and not active:
            raise Refused("This is your own account.", where="account", fix="Ask another administrator to close it.")
        other.is_active = active
        other.save(update_fields=["is_active"])
        return other


def new_password(person: Person, other_id: int, now: datetime) -> NewAccount:
    """Give an account, a student's too, a new first password; the old one no longer works, its sessions are over."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    with deed(person.pk, now):
        other = Person.objects.select_for_update().filter(pk=other_id).first()
        if other is None:
            raise Gone("There is no such account.", fix="Load the list again.")
        password = first_password()
        other.password = make_password(password)
        other.save(update_fields=["password"])
        return NewAccount(other, password)


def started(doing: Deed, group: TeachingGroup, lead: Person) -> None:
    """Make a person the lead of a class just started."""
    StaffRole.objects.create(group=group, person=lead, role=Role.LEAD.value)
    doing.record("class_started", group.pk)
