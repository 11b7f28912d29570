"""Sign-in cards: a secret on paper that signs a young student in on a class device.

Only the secret's hash is kept. A card opens the class that printed it and nothing else: which one is kept in the
session, and every question of access asks it (``people.access``). Decided here: a student has at most one card a class
that works; a new one makes the old one void, once it is laid out for paper; a card works for staff never, its sign-in
ends after a school day, because a class device is passed on, and at once when the card is made void.
"""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Callable
from datetime import datetime, timedelta

from django.contrib.auth import login, logout
from django.contrib.auth.hashers import make_password
from django.db import transaction
from django.http import HttpRequest

from coatpeg.core.errors import Gone, Refused, Stale
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import deed
from coatpeg.people.access import led_students, require_in_group, to_school
from coatpeg.people.models import Enrolment, Person, SignInCard
from coatpeg.people.staffing import first_password

SECRET_BYTES = 18
"""144 bits, 24 signs: nobody guesses it, and the code stays coarse enough for an old camera."""
SIGNED_IN = timedelta(hours=10)
CARD = "card"
"""Under what a session that a card began keeps the card's id."""
BACKEND = "django.contrib.auth.backends.ModelBackend"


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


Secrets = dict[int, str]
"""By enrolment."""


def make(
    person: Person,
    group_id: int,
    enrolments: list[int],
    now: datetime,
    lay_out: Callable[[Secrets, Secrets], bytes],
    *,
    passwords: bool = False,
) -> bytes:
    """New cards for students of a class, laid out from their secrets, which are kept nowhere.

    With ``passwords`` each gets a new one too, for whom all of them this person may give it to; it stands on the card
    alone. Old cards and passwords are void once the new ones are laid out; where that fails they go on working.
    """
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    made = {one: secrets.token_urlsafe(SECRET_BYTES) for one in enrolments}
    with transaction.atomic():
        chosen = _students(group_id, enrolments)
    given = {one.pk: first_password() for one in chosen} if passwords else {}
    if passwords:
        _refuse_others_passwords(person, chosen)
    paper = lay_out(made, given)
    hashes = {one: make_password(password) for one, password in given.items()}
    with deed(person.pk, now) as doing:
        found = _students(group_id, enrolments)
        for one in found:
            if one.pk in hashes:
                Person.objects.filter(pk=one.person_id).update(password=hashes[one.pk])
                doing.record("password_given", group_id, enrolment_id=one.pk)
        _void(group_id, [one.person_id for one in found], now)
        for one in found:
            doing.record("card_made", group_id, enrolment_id=one.pk)
        SignInCard.objects.bulk_create(
            SignInCard(
                person_id=one.person_id, group_id=group_id, sha256=_digest(made[one.pk]), made_at=now, made_by=person
            )
            for one in found
        )
    return paper


def _refuse_others_passwords(person: Person, chosen: list[Enrolment]) -> None:
    """Refuse passwords for students of whom others lead a class too: a password opens all of their classes."""
    _, alone = led_students(person)
    everybody = decide(Action.GIVE_PASSWORD, to_school(person)).allowed
    others = [one.person_id for one in chosen if not everybody and one.person_id not in alone]
    if others:
        first = Person.objects.get(pk=others[0])
        more = f" and {len(others) - 1} more" if len(others) > 1 else ""
        raise Refused(
            f"{first.full_name}{more}: {decide(Action.GIVE_PASSWORD, ()).because}",
            where="students",
            fix="Print cards without passwords, or ask an administrator.",
        )


def _students(group_id: int, enrolments: list[int]) -> list[Enrolment]:
    found = list(
        Enrolment.objects.select_for_update()
        .filter(group_id=group_id, pk__in=enrolments, person__is_staff=False)
        .order_by("pk")
    )
    if len(found) != len(set(enrolments)):
        raise Gone("One of them is not in this class.", fix="Load the list again.")
    return found


def _void(group_id: int, people: list[int], now: datetime) -> None:
    SignInCard.objects.filter(person__in=people, group_id=group_id, voided_at=None).update(voided_at=now)


def void(person: Person, group_id: int, enrolments: list[int], now: datetime) -> None:
    """Make cards void: a lost card is worth nothing from this moment."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        found = _students(group_id, enrolments)
        _void(group_id, [one.person_id for one in found], now)
        for one in found:
            doing.record("card_voided", group_id, enrolment_id=one.pk)


def sign_in(request: HttpRequest, secret: str, *, instead: bool = False) -> Person:
    """Sign in by a card; refused where it is void or unknown, or where somebody else is signed in and was not asked.

    ``instead``: whoever is signed in here is signed out.
    """
    card = SignInCard.objects.select_related("person").filter(sha256=_digest(secret)).first()
    if card is None or not _works(card):
        raise Refused(
            "This card no longer works.", where="card", fix="Ask your teacher for a new one, or sign in by name."
        )
    running = request.user if isinstance(request.user, Person) else None
    if running is not None and running.pk != card.person_id and not instead:
        raise Stale(
            f"{running.full_name} is signed in here.",
            where="card",
            fix="Sign them out first, if this is your card.",
            more={"signed_in": running.full_name},
        )
    if running is not None:
        logout(request)
    login(request, card.person, backend=BACKEND)
    request.session[CARD] = card.pk
    request.session.set_expiry(SIGNED_IN)
    card.person.only_in = card.group_id
    return card.person


def _works(card: SignInCard) -> bool:
    return card.voided_at is None and card.group_id is not None and card.person.is_active and not card.person.is_staff


def hold_to_card(request: HttpRequest) -> None:
    """Keep a session that a card began to the card's class; where the card is void by now, it is over."""
    card_id = request.session.get(CARD)
    if card_id is None or not isinstance(request.user, Person):
        return
    card = SignInCard.objects.filter(pk=card_id, person=request.user, voided_at=None).values_list("group_id").first()
    if card is None or card[0] is None:
        logout(request)
    else:
        request.user.only_in = card[0]
