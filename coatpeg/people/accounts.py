"""Signing in and out, and what a person is when they come in."""

from __future__ import annotations

import secrets
from dataclasses import dataclass

from axes.handlers.proxy import AxesProxyHandler
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest
from django.utils import timezone

from coatpeg.core.errors import Invalid, Refused
from coatpeg.core.people import names
from coatpeg.core.policy import OF_CASELOAD, Action, Relation, Role, allowed
from coatpeg.people.access import require_account, role_of_staff, role_of_student
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person, School, StaffRole, TeachingGroup
from coatpeg.people.requests import person_of

SHORTEST_PASSWORD, LONGEST_PASSWORD = 8, 200
"""Characters; eight is the least that OWASP's ASVS 5.0 asks for (6.2.1), from memory."""


@dataclass(frozen=True, slots=True)
class Membership:
    """One teaching group a person is in, and as what. ``enrolment_id`` is theirs where they are or were a student."""

    group_id: int
    name: str
    kind: str
    role: Role
    enrolment_id: int | None
    put_away: bool = False

    @property
    def may(self) -> frozenset[Action]:
        """What they may do there; in a caseload, which has no portfolios of its own, what concerns its list."""
        relations = (Relation.CLASS, Relation.OWN) if self.enrolment_id else (Relation.CLASS,)
        found = allowed((self.role, relation) for relation in relations)
        return found & OF_CASELOAD if self.kind == TeachingGroup.Kind.CASELOAD else found


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


def change_password(request: HttpRequest, current: str, new: str) -> None:
    """Change one's own password: the old one is asked for; every other session is over, this one goes on."""
    person = person_of(request)
    require_account(person, Action.CHANGE_ACCOUNT)
    if not person.check_password(current):
        raise Invalid("That is not your password as it is now.", where="current", fix="Type it as you do to sign in.")
    if not SHORTEST_PASSWORD <= len(new) <= LONGEST_PASSWORD:
        raise Invalid(
            f"The new password has {len(new)} characters.",
            where="new",
            fix=f"Take {SHORTEST_PASSWORD} to {LONGEST_PASSWORD}; three words that do not belong together are good.",
        )
    if new == current or (person.username and new.lower() == person.username.lower()):
        raise Invalid("That is easy to guess.", where="new", fix="Take another one than before, and not the user name.")
    if _is_common(person, new):
        raise Invalid(
            "Very many people have this password, or it is your name: it is among the first that are tried.",
            where="new",
            fix="Take three words that do not belong together.",
        )
    person.set_password(new)
    person.save(update_fields=["password"])
    update_session_auth_hash(request, person)


def _is_common(person: Person, password: str) -> bool:
    """Whether it stands in Django's list of 20,000 common passwords, is all digits, or much like the person's names."""
    try:
        validate_password(password, person)
    except ValidationError:
        return True
    return False


def sign_out_everywhere(request: HttpRequest) -> None:
    """End all sessions of the person who asks, those that cards began too."""
    person = person_of(request)
    require_account(person, Action.CHANGE_ACCOUNT)
    end_sessions(person)
    logout(request)


def end_sessions(person: Person) -> None:
    """End all sessions of a person, wherever they are signed in."""
    person.sessions_key = secrets.token_hex(16)
    person.save(update_fields=["sessions_key"])


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
    """A person's groups of today, staff roles first, by name; a caseload is never shown to its students: three queries.

    Where a sign-in card opened one class, that one.
    """
    today = school_calendar().local_day(timezone.now())
    staff = (
        StaffRole.objects.on(today)
        .filter(person=person)
        .values_list("group_id", "group__name", "group__kind", "group__last", "group__put_away_at", "role")
    )
    own = (
        Enrolment.objects.filter(person=person)
        .exclude(group__kind=TeachingGroup.Kind.CASELOAD)
        .values_list("group_id", "group__name", "group__kind", "group__last", "group__put_away_at", "last", "pk")
    )
    found = [
        Membership(group, name, kind, now_is, None, put_away=away is not None)
        for group, name, kind, last, away, role in staff
        if (now_is := role_of_staff(Role(role), last, today, put_away=away is not None))
    ]
    found += [
        Membership(group, name, kind, now_is, pk, put_away=away is not None)
        for group, name, kind, last, away, left_on, pk in own
        if (now_is := role_of_student(left_on, last, today, put_away=away is not None))
    ]
    found = [one for one in found if person.only_in in (None, one.group_id)]
    return sorted(found, key=lambda one: (one.kind != "class", names.sort_key(one.name, "", one.group_id)))
