"""Keeping, changing and dropping filters; whoever sees the pegs of a class keeps theirs.

Decided here: a shared one is used by all staff of the class and changed by who kept it alone. At most fifty a person
and class. How many it leaves is counted by the board that shows it, at that moment.
"""

from __future__ import annotations

from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Q

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.handins.filters import tidy_address, tidy_name
from coatpeg.core.policy import Action
from coatpeg.handins.models import KeptFilter
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person

MOST = 50


def kept(person: Person, group_id: int) -> list[dict[str, Any]]:
    """One's own filters of a class by name, then those that co-staff share."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    found = KeptFilter.objects.filter(Q(person=person) | Q(shared=True), group_id=group_id).select_related("person")
    return [_line(one, person) for one in sorted(found, key=lambda one: (one.person_id != person.pk, one.name, one.pk))]


def keep(person: Person, group_id: int, name: str, address: str, *, shared: bool) -> dict[str, Any]:
    """Keep a filter under a name that one has not used yet in this class."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    if KeptFilter.objects.filter(person=person, group_id=group_id).count() >= MOST:
        raise Invalid(f"You have {MOST} kept filters here.", where="name", fix="Drop one that you no longer need.")
    made = KeptFilter(
        group_id=group_id, person=person, name=tidy_name(name), address=tidy_address(address), shared=shared
    )
    _save(made)
    return _line(made, person)


def change(
    person: Person, group_id: int, filter_id: int, *, name: str | None, address: str | None, shared: bool | None
) -> dict[str, Any]:
    """Give a filter of one's own another name or content, share it or stop that."""
    found = _own(person, group_id, filter_id)
    if name is not None:
        found.name = tidy_name(name)
    if address is not None:
        found.address = tidy_address(address)
    if shared is not None:
        found.shared = shared
    _save(found)
    return _line(found, person)


def drop(person: Person, group_id: int, filter_id: int) -> None:
    """Drop a filter of one's own."""
    _own(person, group_id, filter_id).delete()


def _own(person: Person, group_id: int, filter_id: int) -> KeptFilter:
    require_in_group(person, Action.SEE_BOARD, group_id)
    found = KeptFilter.objects.filter(pk=filter_id, group_id=group_id).first()
    if found is None or not (found.shared or found.person_id == person.pk):
        raise Gone("There is no such kept filter.", fix="It was dropped; keep it again if you need it.")
    if found.person_id != person.pk:
        raise Refused(
            f"“{found.name}” is kept by {found.person.full_name}.",
            where=found.name,
            fix="Keep one of your own under another name.",
        )
    return found


def _save(one: KeptFilter) -> None:
    try:
        with transaction.atomic():
            one.save()
    except IntegrityError:
        raise Invalid(
            f"You have a filter “{one.name}” here already.",
            where="name",
            fix="Choose another name, or change that one.",
        ) from None


def _line(one: KeptFilter, person: Person) -> dict[str, Any]:
    own = one.person_id == person.pk
    return {
        "id": one.pk,
        "name": one.name,
        "address": one.address,
        "shared": one.shared,
        "own": own,
        "by": "" if own else one.person.full_name,
    }
