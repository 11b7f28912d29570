"""Sign-in cards: a secret on paper that signs a young student in on a class device.

Only the secret's hash is kept. Decided here: a student has at most one card that works; a new one makes the old one
void; a card works for staff never, and its sign-in ends after a school day, because a class device is passed on.
"""

from __future__ import annotations

import hashlib
import secrets
from datetime import datetime, timedelta

from django.contrib.auth import login
from django.db import transaction
from django.http import HttpRequest

from coatpeg.core.errors import Gone, Refused
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Enrolment, Person, SignInCard

SECRET_BYTES = 18
"""144 bits, 24 signs: nobody guesses it, and the code stays coarse enough for an old camera."""
SIGNED_IN = timedelta(hours=10)
BACKEND = "django.contrib.auth.backends.ModelBackend"


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def make(person: Person, group_id: int, enrolments: list[int], now: datetime) -> dict[int, str]:
    """New cards for students of a class; the secrets by enrolment, which are kept nowhere. Old cards are void."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        found = _students(group_id, enrolments)
        _void([one.person_id for one in found], now)
        made: dict[int, str] = {}
        for one in found:
            made[one.pk] = secrets.token_urlsafe(SECRET_BYTES)
            doing.record("card_made", group_id, enrolment_id=one.pk)
        SignInCard.objects.bulk_create(
            SignInCard(person_id=one.person_id, sha256=_digest(made[one.pk]), made_at=now, made_by=person)
            for one in found
        )
        return made


def _students(group_id: int, enrolments: list[int]) -> list[Enrolment]:
    found = list(
        Enrolment.objects.select_for_update()
        .filter(group_id=group_id, pk__in=enrolments, person__is_staff=False)
        .order_by("pk")
    )
    if len(found) != len(set(enrolments)):
        raise Gone("One of them is not in this class.", fix="Load the list again.")
    return found


def _void(people: list[int], now: datetime) -> None:
    SignInCard.objects.filter(person__in=people, voided_at=None).update(voided_at=now)


def void(person: Person, group_id: int, enrolments: list[int], now: datetime) -> None:
    """Make cards void: a lost card is worth nothing from this moment."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        found = _students(group_id, enrolments)
        _void([one.person_id for one in found], now)
        for one in found:
            doing.record("card_voided", group_id, enrolment_id=one.pk)


def sign_in(request: HttpRequest, secret: str) -> Person:
    """Sign in by a card; refused where it is void or unknown."""
    with transaction.atomic():
        card = SignInCard.objects.select_related("person").filter(sha256=_digest(secret), voided_at=None).first()
    if card is None or not card.person.is_active or card.person.is_staff:
        raise Refused(
            "This card no longer works.", where="card", fix="Ask your teacher for a new one, or sign in by name."
        )
    login(request, card.person, backend=BACKEND)
    request.session.set_expiry(SIGNED_IN)
    return card.person
