"""How a hand-in is marked, said by whoever sets hand-ins.

Decided here: it is said any day. Marks that were done stay, for who marks by it later and for the figures of agreement;
a hand-in that is copied begins without.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Gone, Stale
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.handins.models import HandIn
from coatpeg.marking.models import MarkingRule
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person


def handin_in(person: Person, action: Action, group_id: int, handin_id: int) -> HandIn:
    """A hand-in of a class in which this person may do ``action``."""
    require_in_group(person, action, group_id)
    found = HandIn.objects.filter(pk=handin_id, group_id=group_id, taken_away_at=None, draft=False).first()
    if found is None:
        raise Gone("There is no such hand-in in this class.", fix="Go back to the hand-ins.")
    return found


def rule(
    person: Person, group_id: int, handin_id: int, version: int, now: datetime, *, two: bool, blind: bool
) -> MarkingRule:
    """Say how a hand-in is marked; ``version`` is the one that was seen."""
    handin_in(person, Action.SET_HANDIN, group_id, handin_id)
    with deed(person.pk, now) as doing:
        HandIn.objects.select_for_update().filter(pk=handin_id).values_list("pk").first()
        kept = MarkingRule.objects.filter(handin_id=handin_id).first() or MarkingRule(handin_id=handin_id)
        if kept.version != version:
            raise Stale("Somebody said otherwise meanwhile.", where="two", fix="Look at it as it is now.")
        if (kept.two, kept.blind) != (two, blind):
            kept.two, kept.blind, kept.version = two, blind, version + 1
            kept.person, kept.changed_at = person, now
            kept.save()
            doing.record("marking_ruled", group_id, handin_id=handin_id, two=two, blind=blind)
        return kept
