"""Outcomes of a review: accepted, sent back, reopened. Marking calls these within its own deed."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from coatpeg.core.errors import Gone, Stale
from coatpeg.core.handins.locking import pockets_to_send_back
from coatpeg.core.handins.standing import Verb
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed
from coatpeg.handins.handing.commands import carry_out
from coatpeg.handins.handing.records import facts_now
from coatpeg.handins.models import Outcome, Submission
from coatpeg.notices.putting import take_back
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.writing import locked_portfolio


@dataclass(frozen=True, slots=True)
class Reviewed:
    """A submission under review with its portfolio locked."""

    submission: Submission
    portfolio: Portfolio


def submission_for(person: Person, action: Action, submission_id: int) -> Submission:
    """A submission that this person may do ``action`` to."""
    found = (
        Submission.objects.filter(pk=submission_id)
        .select_related("handin", "enrolment__person", "enrolment__group")
        .first()
    )
    if found is None:
        raise Gone("There is no such submission.", fix="Go back to the pegs or the marking pile.")
    require_for_student(person, action, found.enrolment)
    return found


def lock_for_review(person: Person, submission_id: int) -> Reviewed:
    """The submission and its portfolio, locked, for somebody who may mark it."""
    submission = submission_for(person, Action.MARK, submission_id)
    if submission.handin.taken_away_at is not None:
        raise Gone(
            f"“{submission.handin.title}” was taken away: it is marked no more.",
            fix="Bring it back under Hand-ins, or go to the next one.",
        )
    portfolio = locked_portfolio(Portfolio.objects.get(enrolment=submission.enrolment).pk)
    return Reviewed(submission, portfolio)


def give(
    doing: Deed,
    person: Person,
    reviewed: Reviewed,
    kind: Outcome.Kind,
    *,
    pockets: frozenset[int] = frozenset(),
    due_again: datetime | None = None,
) -> tuple[Outcome, list[str]]:
    """Give an outcome; returns it and the other hand-ins whose holds *sent back* released.

    ``Stale`` where the submission is no longer the newest, or has an outcome already.
    """
    submission = reviewed.submission
    facts = facts_now(submission.enrolment_id, submission.handin_id)
    if facts.excused:
        raise Stale("The student is excused from this hand-in.", fix="End the excuse first, or go to the next one.")
    if facts.newest != submission.pk:
        raise Stale(
            "This is no longer the newest submission.",
            where=submission.receipt,
            fix="The student handed in again or took it back; open the newest one.",
            more={"newest": facts.newest},
        )
    if facts.outcome is not None:
        raise Stale(
            f"This submission is already {facts.outcome.value.replace('_', ' ')}.",
            where=submission.receipt,
            fix="Reopen it to decide again.",
            more={"outcome": facts.outcome.value},
        )
    collected = frozenset(submission.handin.pockets.values_list("pk", flat=True))
    sent_back = kind == Outcome.Kind.SENT_BACK
    named = pockets_to_send_back(collected, pockets) if sent_back else collected
    outcome = Outcome.objects.create(
        submission=submission,
        kind=kind,
        at=doing.now,
        person=person,
        pockets=sorted(named) if sent_back else [],
        due_again=due_again,
    )
    others = carry_out(
        doing,
        reviewed.portfolio,
        submission.handin,
        Verb(kind.value),
        submission=submission,
        pockets=named,
        due_again=due_again,
    )
    return outcome, others


def handed_in_pockets(submission: Submission) -> frozenset[int]:
    """The pockets that a submission froze."""
    return frozenset(one["id"] for one in submission.snapshot["pockets"])


def reopen(doing: Deed, reviewed: Reviewed) -> Outcome:
    """Void the standing outcome of the newest submission; it goes back on the pile, its pockets are locked."""
    submission = reviewed.submission
    outcome = Outcome.objects.filter(submission=submission, voided_at=None).first()
    facts = facts_now(submission.enrolment_id, submission.handin_id)
    if outcome is None or facts.newest != submission.pk:
        raise Stale(
            "There is no outcome to reopen on this submission.",
            where=submission.receipt,
            fix="It was reopened already, or the student handed in again.",
        )
    outcome.voided_at = doing.now
    outcome.save(update_fields=["voided_at"])
    take_back(outcome.kind, submission.handin.group_id, submission.handin_id, [submission.enrolment_id])
    # What it collects by now and did not then was not handed in: it stays open.
    collected = handed_in_pockets(submission) & set(submission.handin.pockets.values_list("pk", flat=True))
    carry_out(doing, reviewed.portfolio, submission.handin, Verb.REOPENED, submission=submission, pockets=collected)
    return outcome
