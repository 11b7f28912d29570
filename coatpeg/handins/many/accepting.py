"""Many submissions of one hand-in accepted at once; marking calls this within its own deed, the portfolios locked."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from coatpeg.core.handins.standing import Happening, Verb
from coatpeg.core.marking.releasing import told_at
from coatpeg.events.recording import Deed
from coatpeg.handins.handing.records import keep_many
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.notices.putting import put_many
from coatpeg.people.models import Person
from coatpeg.portfolios.models import StandingHold


def accept(doing: Deed, person: Person, handin: HandIn, submissions: Sequence[Submission], name: str) -> list[Outcome]:
    """Accept submissions, the newest of their students; their pockets stay locked, or open where it says so."""
    pockets = sorted(handin.pockets.values_list("pk", flat=True))
    given = Outcome.objects.bulk_create(
        [
            Outcome(submission=one, kind=Outcome.Kind.ACCEPTED, at=doing.now, person=person, pockets=[])
            for one in submissions
        ],
        batch_size=500,
    )
    newest = {one.enrolment_id: one.pk for one in submissions}
    keep_many(handin.pk, {one: Happening(Verb.ACCEPTED, doing.now, newest[one]) for one in newest})
    if handin.opens_again:
        own = StandingHold.objects.filter(handin_id=handin.pk, pocket_id__in=pockets)
        own.filter(portfolio__enrolment_id__in=newest).delete()
    opened: dict[str, Any] = {"opened": pockets} if handin.opens_again else {}
    for enrolment, submission in newest.items():
        doing.record(
            Verb.ACCEPTED.value,
            handin.group_id,
            enrolment_id=enrolment,
            handin_id=handin.pk,
            submission_id=submission,
            pockets=pockets,
            deed=name,
            **opened,
        )
    about = [{"enrolment": one, "handin": handin.pk} for one in newest]
    put_many(doing, Verb.ACCEPTED.value, handin.group_id, about, tell_at=told_at(doing.now))
    return given
