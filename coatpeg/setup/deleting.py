"""Deleting a class in which nobody has begun.

Decided here: whatever a student ever put in keeps the class, what lies in the bin too, and so does what staff said
about it; such a class is put away instead. Accounts stay, and so do a template that is in the gallery and the classes
that were made like this one; what happened in it stays on record, which holds numbers only. There is no undo: it is
asked before, and told what goes.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Invalid
from coatpeg.core.policy import Action
from coatpeg.events.models import MovedWork
from coatpeg.events.recording import deed
from coatpeg.handins.models import Submission
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Enrolment, Person, TeachingGroup
from coatpeg.portfolios.models import Artefact, Comment, Evidence, LogRow, LoosePage
from coatpeg.portfolios.writing import lock_portfolios
from coatpeg.sharing.models import SharedPage

WORK = (Evidence, Artefact, LogRow, LoosePage, Comment)
"""What a student puts in, and what is said about it; all of it hangs on a portfolio."""


def begun(group_id: int) -> bool:
    """Whether anybody has ever put anything into a portfolio of the class, or handed it in."""
    in_portfolios = any(one.objects.filter(portfolio__enrolment__group_id=group_id).exists() for one in WORK)
    noted = Enrolment.objects.filter(group_id=group_id, staff_notes__isnull=False)
    together = SharedPage.objects.filter(group_id=group_id, number__gt=0)
    return (
        in_portfolios
        or together.exists()
        or noted.exists()
        or Submission.objects.filter(handin__group_id=group_id).exists()
    )


def delete_class(person: Person, group_id: int, now: datetime) -> None:
    """Delete a class with its list, template and hand-ins; ``Invalid`` where somebody has begun."""
    require_in_group(person, Action.KEEP_CLASS, group_id)
    with deed(person.pk, now) as doing:
        group = TeachingGroup.objects.select_for_update().get(pk=group_id)
        # Whoever puts something in holds their portfolio: it is there before this, or the class is gone before it.
        lock_portfolios(group_id)
        if begun(group_id):
            raise Invalid(
                f"Somebody has begun in “{group.name}”.",
                where=group.name,
                fix="Put it away: it can be read then, and nothing in it changes.",
            )
        MovedWork.objects.filter(group_id=group_id).delete()
        group.delete()
        doing.record("class_deleted", group_id)
