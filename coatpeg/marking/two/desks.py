"""Which submission which marker has open this moment.

Decided here: a page says so about every ten seconds and as it is left; what was not said for `LATELY` is over. It is no
lock: two may mark the same, and who decides second is told.
"""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from coatpeg.core.policy import Action
from coatpeg.handins.models import Submission
from coatpeg.marking.models import OpenDesk
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person

LATELY = timedelta(seconds=35)


def say_open(person: Person, group_id: int, submission_id: int | None, now: datetime) -> list[dict[str, Any]]:
    """Say what one has open (None: nothing), and hear what others of the class have."""
    require_in_group(person, Action.MARK, group_id)
    named = Submission.objects.filter(pk=submission_id or 0, handin__group_id=group_id).first()
    if named is not None:
        OpenDesk.objects.update_or_create(person=person, defaults={"submission": named, "at": now})
    else:
        OpenDesk.objects.filter(person=person).delete()
    others = OpenDesk.objects.filter(submission__handin__group_id=group_id, at__gt=now - LATELY).exclude(person=person)
    return [{"submission": one.submission_id, "who": one.person.full_name} for one in others.select_related("person")]
