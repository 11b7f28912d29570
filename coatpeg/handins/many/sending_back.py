"""Many submissions sent back at once; marking calls this within its own deed, with the class's portfolios locked."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from coatpeg.core.handins.locking import STAFF
from coatpeg.core.handins.standing import Happening, Verb
from coatpeg.core.marking.releasing import told_at
from coatpeg.events.recording import Deed
from coatpeg.handins.board.situation import Situation, facts_in
from coatpeg.handins.handing.records import keep_many
from coatpeg.handins.many.choosing import Chosen, by_handin
from coatpeg.handins.models import Outcome
from coatpeg.notices.putting import put_many
from coatpeg.people.models import Person
from coatpeg.portfolios.models import StandingHold


def send_back(
    doing: Deed,
    person: Person,
    group_id: int,
    view: Situation,
    done: Sequence[Chosen],
    due_again: datetime | None,
    name: str,
) -> list[Outcome]:
    """Send back the newest submission of each cell, with all that it collected; every hand-in's hold on it ends."""
    given: list[Outcome] = []
    for handin_id, of in by_handin(done).items():
        pockets = sorted(of[0].handin.pockets)
        newest = {one.member.enrolment_id: facts_in(view, *one.cell).newest or 0 for one in of}
        given += Outcome.objects.bulk_create(
            [
                Outcome(
                    submission_id=submission,
                    kind=Outcome.Kind.SENT_BACK,
                    at=doing.now,
                    person=person,
                    pockets=pockets,
                    due_again=due_again,
                )
                for submission in newest.values()
            ],
            batch_size=500,
        )
        keep_many(
            handin_id,
            {one: Happening(Verb.SENT_BACK, doing.now, newest[one], due_again) for one in newest},
        )
        held = StandingHold.objects.filter(pocket_id__in=pockets, portfolio__enrolment_id__in=newest)
        held.exclude(handin_id=STAFF).delete()
        for enrolment, submission in newest.items():
            doing.record(
                Verb.SENT_BACK.value,
                group_id,
                enrolment_id=enrolment,
                handin_id=handin_id,
                submission_id=submission,
                pockets=pockets,
                deed=name,
                due_again=due_again.isoformat() if due_again else None,
            )
        about = [{"enrolment": one, "handin": handin_id} for one in newest]
        put_many(doing, Verb.SENT_BACK.value, group_id, about, tell_at=told_at(doing.now))
    return given
