"""Taking back a hand-in that was just set: as if it had never been, while nobody has done anything for it."""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.asked.anything import without_room
from coatpeg.handins.models import HandIn, KeptFacts
from coatpeg.notices.models import Notice
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.writing import lock_portfolios


def take_back_handin(person: Person, group_id: int, handin_id: int, now: datetime) -> None:
    """Take back a hand-in; ``Invalid`` once somebody has handed it in or was excused."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        take_back(doing, group_id, handin_id)


def take_back(doing: Deed, group_id: int, handin_id: int) -> None:
    """The same within a deed that holds the portfolios of the class: nobody hands in meanwhile."""
    handin = HandIn.objects.select_for_update().filter(pk=handin_id, group_id=group_id).first()
    if handin is None:
        raise Gone("There is no such hand-in in this class.", fix="Load the page again.")
    if handin.submissions.exists() or KeptFacts.objects.filter(handin=handin).exists():
        raise Invalid(
            f"Somebody has handed in “{handin.title}” already, or was excused from it.",
            where=handin.title,
            fix="It stays: what was handed in is never taken from a student.",
        )
    Notice.objects.filter(group_id=group_id, what__in=("handin_set", "own_due_set"), data__handin=handin_id).delete()
    own = list(handin.pockets.all()) if handin.anything else []
    handin.delete()
    without_room(own)
    doing.record("handin_taken_back", group_id, handin_id=handin_id)
