"""Pictures and files that staff give with a hand-in, beside its directions.

Decided here: a file comes up before its hand-in is set and waits in the class it came in; the plan names it. Hand-ins
that are laid out like another one, in this class or elsewhere, and those of a series give the very same file. It is
read by the staff of every class in which it is given or came, and by the students whom one of these hand-ins asks, once
that is set: by whoever reads the directions. One that no hand-in gives (any more) waits 90 days, so that taking it out
can be undone, and goes.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from datetime import datetime
from typing import Any

from django.core.files.base import File
from django.db import transaction
from django.utils import timezone

from coatpeg.core.errors import Invalid
from coatpeg.core.policy import Action, decide
from coatpeg.handins.asked.asking import handins_of_group
from coatpeg.handins.models import HandIn
from coatpeg.outlines.given_files import MOST_FILES, MOST_WAITING, WAITS, file_data, keep, of_kept
from coatpeg.outlines.models import GivenFile
from coatpeg.people.access import require_in_group, to_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person, TeachingGroup
from coatpeg.people.rosters import members

_OF_NO_POCKET = GivenFile.objects.filter(pocket=None, draft_of=None)


def add(person: Person, group_id: int, content: File[Any], name: str, now: datetime) -> GivenFile:
    """Keep a picture or file for a hand-in of a class that is being filled in; what waited too long goes."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    kept, title = keep(content, name)
    with transaction.atomic():
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        _OF_NO_POCKET.filter(handins=None, made_at__lt=now - WAITS).delete()
        if _OF_NO_POCKET.filter(handins=None, group_id=group_id).count() >= MOST_WAITING:
            raise Invalid(
                f"{MOST_WAITING} files of this class wait for hand-ins, which is the most.",
                where="file",
                fix="Set the hand-ins that you gave them with first, then give more.",
            )
        made = of_kept(kept, title, "directions", now)
        made.group_id = group_id
        made.save()
        return made


def check(person: Person, wanted: Collection[int]) -> None:
    """Raise ``Invalid`` where these are too many to give with a hand-in, or one that this person cannot give."""
    if not wanted:
        return
    if len(set(wanted)) > MOST_FILES:
        raise Invalid(
            f"That is more than {MOST_FILES} files, which is the most for a hand-in.",
            where="files",
            fix="Take one away first.",
        )
    found = _OF_NO_POCKET.filter(pk__in=wanted).prefetch_related("handins")
    if sum(_gives(person, one) for one in found) != len(set(wanted)):
        raise Invalid("A file was named that is not here.", where="files", fix="Take it away and give it once more.")


def may_read(person: Person, of: GivenFile) -> bool:
    """Whether a person reads a file that is given with hand-ins."""
    return _gives(person, of) or any(
        _is_asked(person, one) for one in of.handins.filter(draft=False, taken_away_at=None)
    )


def _gives(person: Person, of: GivenFile) -> bool:
    """Whether a person is on the staff of a class where it came, or is given."""
    classes = {one.group_id for one in of.handins.all()} | ({of.group_id} if of.group_id else set())
    return any(decide(Action.SEE_HANDINS, to_group(person, one)).allowed for one in sorted(classes))


def _is_asked(person: Person, handin: HandIn) -> bool:
    """Whether a student of the class is asked for a hand-in, or has handed it in."""
    if not decide(Action.READ_DIRECTIONS, to_group(person, handin.group_id)).allowed:
        return False
    enrolment = Enrolment.objects.filter(group_id=handin.group_id, person=person).first()
    if enrolment is None:
        return False
    calendar = school_calendar()
    mine = members(handin.group_id, calendar.local_day(timezone.now()), enrolments=(enrolment.pk,))
    asked = [
        answer.asked for one in handins_of_group(handin.group_id, handin.pk) for answer in one.answers(mine, calendar)
    ]
    return any(asked) or handin.submissions.filter(enrolment=enrolment).exists()


def of_handins(handins: Iterable[int]) -> dict[int, list[dict[str, Any]]]:
    """The files that each of these hand-ins gives, as data, as they came: one query."""
    through = HandIn.files.through
    rows = through.objects.filter(handin__in=list(handins)).select_related("givenfile__stored").order_by("givenfile")
    found: dict[int, list[dict[str, Any]]] = {}
    for row in rows:
        found.setdefault(row.handin_id, []).append(file_data(row.givenfile))
    return found
