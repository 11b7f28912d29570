"""Saving a draft, accepting, sending back, reopening."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal

from coatpeg.core.errors import Invalid, Stale
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.marking.scoring import check_score
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import texts
from coatpeg.events.recording import deed
from coatpeg.handins.handing import outcomes
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.marking.models import DraftMark, ReleasedMark
from coatpeg.people.calendars import check_class_days
from coatpeg.people.models import Person


@dataclass(frozen=True, slots=True)
class Verdict:
    """What a marker gives: feedback and, where the hand-in has points, a score."""

    feedback: str
    score: Decimal | None

    def checked(self, handin: HandIn) -> Verdict:
        """The same, tidied; ``Invalid`` where the score or the length does not fit."""
        if len(self.feedback) > texts.LONGEST_TEXT:
            raise Invalid(
                f"The feedback has {len(self.feedback)} characters; {texts.LONGEST_TEXT} is the most.",
                where="feedback",
                fix="Shorten it. What you wrote stays in the field.",
            )
        if self.score is not None:
            if handin.points is None:
                raise Invalid("This hand-in has no points.", where="score", fix="Leave the score empty.")
            check_score(self.score, handin.points, handin.step)
        return Verdict(texts.tidy_text(self.feedback), self.score)


def save_draft(person: Person, submission_id: int, verdict: Verdict, version: int, now: datetime) -> DraftMark:
    """Keep a marker's own draft; ``version`` is the one they saw. Nobody else sees it."""
    outcomes.submission_for(person, Action.MARK, submission_id)
    with deed(person.pk, now):
        reviewed = outcomes.lock_for_review(person, submission_id)
        checked = verdict.checked(reviewed.submission.handin)
        draft, _ = DraftMark.objects.get_or_create(
            submission=reviewed.submission, person=person, defaults={"changed_at": now}
        )
        if (draft.feedback, draft.score) == (checked.feedback, checked.score):
            return draft
        _refuse_old(draft, version)
        draft.feedback, draft.score = checked.feedback, checked.score
        draft.version, draft.changed_at = draft.version + 1, now
        draft.save()
        return draft


def _refuse_old(draft: DraftMark, version: int) -> None:
    if draft.version != version:
        raise Stale(
            "You changed this draft in another window meanwhile.",
            where="feedback",
            fix="Both texts are here: choose one, or put them together.",
            more={
                "feedback": draft.feedback,
                "score": float(draft.score) if draft.score is not None else None,
                "version": draft.version,
            },
        )


def review(
    person: Person,
    submission_id: int,
    kind: Outcome.Kind,
    verdict: Verdict,
    version: int,
    now: datetime,
    *,
    pockets: frozenset[int] = frozenset(),
    due_again: datetime | None = None,
) -> tuple[Outcome, list[str]]:
    """Accept or send back, and release the mark with it; returns other hand-ins whose holds were released."""
    with deed(person.pk, now) as doing:
        reviewed = outcomes.lock_for_review(person, submission_id)
        checked = verdict.checked(reviewed.submission.handin)
        draft = DraftMark.objects.filter(submission=reviewed.submission, person=person).first()
        if draft and (draft.feedback, draft.score) != (checked.feedback, checked.score):
            _refuse_old(draft, version)
        check_due_again(reviewed.submission.handin.group_id, due_again, now)
        outcome, others = outcomes.give(doing, person, reviewed, kind, pockets=pockets, due_again=due_again)
        ReleasedMark.objects.create(
            outcome=outcome,
            feedback=checked.feedback,
            score=checked.score,
            points=reviewed.submission.handin.points,
        )
        DraftMark.objects.update_or_create(
            submission=reviewed.submission,
            person=person,
            defaults={
                "feedback": checked.feedback,
                "score": checked.score,
                "version": (draft.version if draft else 0) + 1,
                "changed_at": now,
            },
        )
        doing.record(
            "mark_released",
            reviewed.submission.handin.group_id,
            enrolment_id=reviewed.submission.enrolment_id,
            handin_id=reviewed.submission.handin_id,
            submission_id=submission_id,
            outcome=outcome.pk,
            feedback=text_digest(checked.feedback),
        )
        return outcome, others


def check_due_again(group_id: int, due_again: datetime | None, now: datetime) -> None:
    """``Invalid`` where a new due moment cannot be meant in this class, or has passed."""
    if due_again is not None:
        check_class_days(group_id, due_again=due_again.date())
    if due_again is not None and due_again <= now:
        raise Invalid("The new due date has passed already.", where="due_again", fix="Choose a later day.")


def reopen(person: Person, submission_id: int, now: datetime) -> Submission:
    """Take an outcome back: the submission is on the pile again, its mark a draft again of whoever gave it."""
    with deed(person.pk, now) as doing:
        reviewed = outcomes.lock_for_review(person, submission_id)
        outcomes.reopen(doing, reviewed)
        return reviewed.submission
