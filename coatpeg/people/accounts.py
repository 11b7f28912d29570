"""Signing in and out, and what a person is when they come in."""

from __future__ import annotations

from dataclasses import dataclass

from axes.handlers.proxy import AxesProxyHandler
from django.contrib.auth import authenticate, login
from django.http import HttpRequest

from coatpeg.core import names
from coatpeg.core.errors import Refused
from coatpeg.core.policy import Role
from coatpeg.people.models import Enrolment, Person, School, StaffRole, TeachingGroup


@dataclass(frozen=True, slots=True)
class Membership:
    """One teaching group a person is in, and as what. ``enrolment_id`` is theirs where they are a student."""

    group_id: int
    name: str
    kind: str
    role: str
    enrolment_id: int | None


def sign_in(request: HttpRequest, username: str, password: str) -> Person:
    """Sign a person in, or refuse; after too many failures the name is locked for a while on that address."""
    credentials = {"username": username.strip().lower()}
    if not AxesProxyHandler.is_allowed(request, credentials):
        raise _too_often()
    person = authenticate(request, password=password, **credentials)
    if not isinstance(person, Person):
        if not AxesProxyHandler.is_allowed(request, credentials):
            raise _too_often()
        raise Refused(
            "That user name and password do not belong together.",
            where="password",
            fix="Check both; capital letters matter in the password. A teacher can give you a new one.",
        )
    login(request, person)
    return person


def lock_names() -> None:
    """Wait until nobody else makes accounts: user names and numbers are unique in the school. Within a deed."""
    School.objects.select_for_update().order_by("pk").values_list("pk").first()


def _too_often() -> Refused:
    return Refused(
        "Too many tries with this user name.",
        where="username",
        fix="Wait five minutes, then try again, or ask a teacher for help.",
        more={"throttled": True},
    )


def memberships(person: Person) -> list[Membership]:
    """A person's groups, staff roles first, by name; a caseload is never shown to its students: two queries."""
    staff = StaffRole.objects.filter(person=person).values_list("group_id", "group__name", "group__kind", "role")
    own = (
        Enrolment.objects.filter(person=person)
        .exclude(group__kind=TeachingGroup.Kind.CASELOAD)
        .values_list("group_id", "group__name", "group__kind", "pk")
    )
    found = [Membership(group, name, kind, role, None) for group, name, kind, role in staff]
    found += [Membership(group, name, kind, Role.STUDENT.value, pk) for group, name, kind, pk in own]
    return sorted(found, key=lambda one: (one.kind != "class", names.sort_key(one.name, "", one.group_id)))
