"""Students' accounts: finding them for an administrator, and giving a new password where a card is not enough.

A password opens every class that the student is in; so an administrator gives it, or a lead of all of them.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.contrib.auth.hashers import make_password

from coatpeg.core.errors import Gone, Refused
from coatpeg.core.people.names import search_key, sort_key
from coatpeg.core.people.person_names import tidy
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import deed
from coatpeg.people.access import has_alone, require, require_in_school, to_group
from coatpeg.people.models import Enrolment, Person
from coatpeg.people.staffing import NewAccount, first_password

MOST_FOUND = 20
SHORTEST = 2


def find(person: Person, text: str) -> list[dict[str, Any]]:
    """Students by a part of their name, user name or number, for who keeps the accounts."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    wanted = search_key(tidy(text)).split()
    if len("".join(wanted)) < SHORTEST:
        return []
    found = [
        one
        for one in Person.objects.filter(is_staff=False, same_as=None).prefetch_related("enrolments__group")
        if all(part in search_key(f"{one.given_name} {one.family_name} {one.username} {one.number}") for part in wanted)
    ]
    found.sort(key=lambda one: sort_key(one.family_name, one.given_name, one.pk))
    return [
        {
            "person": one.pk,
            "name": one.listed,
            "username": one.username or "",
            "email": one.email,
            "active": one.is_active,
            "administrator": False,
            "classes": sorted(each.group.name for each in one.enrolments.all() if each.group.kind != "caseload"),
        }
        for one in found[:MOST_FOUND]
    ]


def give_password(person: Person, enrolment_id: int, now: datetime) -> NewAccount:
    """Give a student of a class a new password, shown this once; every session of theirs is over."""
    enrolment = Enrolment.objects.select_related("person").filter(pk=enrolment_id, person__is_staff=False).first()
    if enrolment is None:
        raise Gone("There is no such student.", fix="Load the list again.")
    standings = has_alone(person, enrolment.person_id)
    if not standings and to_group(person, enrolment.group_id):
        raise Refused(decide(Action.GIVE_PASSWORD, ()).because, fix="Print a sign-in card, or ask an administrator.")
    require(Action.GIVE_PASSWORD, standings)
    password = first_password()
    with deed(person.pk, now) as doing:
        student = Person.objects.select_for_update().get(pk=enrolment.person_id)
        student.password = make_password(password)
        student.save(update_fields=["password"])
        doing.record("password_given", enrolment.group_id, enrolment_id=enrolment.pk)
    return NewAccount(student, password)
