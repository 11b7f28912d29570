"""Sending back many submissions at once, with the same words to all."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from uuid import uuid4

from coatpeg.core.handins.many import Why, why_not_send_back
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.handins.board.situation import Situation
from coatpeg.handins.many.choosing import Chosen, Seen, Touched, sorted_out
from coatpeg.handins.many.sending_back import send_back
from coatpeg.handins.models import HandIn, Submission
from coatpeg.marking.commands import Verdict, check_due_again
from coatpeg.marking.models import ReleasedMark
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.writing import lock_portfolios


def send_back_many(
    person: Person,
    group_id: int,
    seen: Sequence[Seen],
    feedback: str,
    due_again: datetime | None,
    now: datetime,
    *,
    only_look: bool = False,
) -> tuple[Touched, str]:
    """Send back what is handed in and not decided; returns what was touched and the deed's name, for its undo.

    No score is given with it. Drafts of single marks stay as they are.
    """
    require_in_group(person, Action.MARK, group_id)
    check_due_again(group_id, due_again, now)
    words = Verdict(feedback, None).checked(HandIn()).feedback

    def why_not(_: Situation, one: Chosen) -> Why | None:
        return why_not_send_back(one.status)

    if only_look:
        return sorted_out(group_id, seen, now, why_not)[2], ""
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        view, done, touched = sorted_out(group_id, seen, now, why_not)
        given = send_back(doing, person, group_id, view, done, due_again, name)
        points = {one.handin.id: one.handin.points for one in done}
        of = Submission.objects.only("enrolment_id", "handin_id").in_bulk([one.submission_id for one in given])
        ReleasedMark.objects.bulk_create(
            [
                ReleasedMark(outcome=one, feedback=words, points=points[of[one.submission_id].handin_id])
                for one in given
            ],
            batch_size=500,
        )
        for one in given:
            doing.record(
                "mark_released",
                group_id,
                enrolment_id=of[one.submission_id].enrolment_id,
                handin_id=of[one.submission_id].handin_id,
                submission_id=one.submission_id,
                outcome=one.pk,
                feedback=text_digest(words),
            )
        return touched, name
