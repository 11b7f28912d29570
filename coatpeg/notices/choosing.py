"""How each person wants to be told by mail.

Decided here: the bell tells everybody. By mail staff are told once a day unless they choose otherwise; students, whose
addresses the school has put in, not at all until they choose it themselves.
"""

from __future__ import annotations

from collections.abc import Mapping

from coatpeg.notices.addressees import Addressee
from coatpeg.notices.models import MailChoice

How = MailChoice.How


def usual(addressee: Addressee) -> How:
    """How somebody is told who has not chosen."""
    return How.DAILY if addressee.staff else How.NEVER


def choices_of(people: Mapping[int, Addressee]) -> dict[int, How]:
    """How each of some people is told by mail; nobody without an address is."""
    chosen = dict(MailChoice.objects.filter(person_id__in=people).values_list("person_id", "how"))
    return {pk: How(chosen[pk]) if pk in chosen else usual(one) for pk, one in people.items() if one.email}


def choose(person_id: int, how: How, *, receipts: bool | None = None) -> None:
    """Choose how to be told; without a word on receipts that stays as it is."""
    wishes = {} if receipts is None else {"receipts": receipts}
    MailChoice.objects.update_or_create(person_id=person_id, defaults={"how": how, **wishes})


def wants_receipts(person_id: int) -> bool:
    """Whether somebody wants their receipts by mail, and is told anything by mail at all."""
    return MailChoice.objects.filter(person_id=person_id, receipts=True).exclude(how=How.NEVER).exists()
