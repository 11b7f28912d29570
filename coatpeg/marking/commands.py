"""Saving a draft, accepting, sending back, reopening.

Where a hand-in has a rubric its score comes from the levels alone. Decided here: what is accepted has every criterion
judged, or said to be not judged; what is sent back may be sent without any level, but not with some of them. A released
mark keeps the rubric that it was made by. Of a rubric that changed since, a draft keeps the levels that still fit.

A marker may give another score than the rubric or the late rule makes, with the reason: it stands as it is given, and
what the rule made is kept beside it. The late rule (``late.ruling``) is applied once, to what is released.
"""

from __future__ import annotations

from dataclasses import asdict, dataclass, field
from datetime import datetime
from decimal import Decimal
from typing import Any

from coatpeg.core.errors import Invalid, Stale
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.marking.rubrics import Judged, Rubric, rubric_from_data
from coatpeg.core.marking.scoring import LateRule, after_late, check_score, to_step
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import texts
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.handing import outcomes
from coatpeg.handins.handing.records import facts_now
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.marking import together
from coatpeg.marking.annotations import making
from coatpeg.marking.late.ruling import late_days, late_rule
from coatpeg.marking.models import DraftMark, ReleasedMark
from coatpeg.marking.two import marks
from coatpeg.people.calendars import check_class_days
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Portfolio

LONGEST_WHY = 500


@dataclass(frozen=True, slots=True)
class Verdict:
    """What a marker gives: feedback and, where the hand-in has points, a score."""

    feedback: str
    score: Decimal | None
    levels: Judged = field(default_factory=dict)
    own_score: Decimal | None = None
    """Against what the rule makes."""
    why: str = ""

    @classmethod
    def of_draft(cls, draft: DraftMark, handin: HandIn) -> Verdict:
        """What a draft says."""
        score = None if handin.rubric else draft.score
        return cls(draft.feedback, score, draft.levels, draft.own_score, draft.why)

    def checked(self, handin: HandIn) -> Verdict:
        """The same, tidied; ``Invalid`` where the score, a level or the length does not fit."""
        if len(self.feedback) > texts.LONGEST_TEXT:
            raise Invalid(
                f"The feedback has {len(self.feedback)} characters; {texts.LONGEST_TEXT} is the most.",
                where="feedback",
                fix="Shorten it. What you wrote stays in the field.",
            )
        feedback, rubric = texts.tidy_text(self.feedback), rubric_from_data(handin.rubric)
        own, why = self._own(handin)
        if rubric is not None:
            score = _by_rubric(rubric, self.levels, handin)
            if self.score not in (None, score):
                raise Invalid(
                    "The score of this hand-in comes from its rubric.",
                    where="score",
                    fix="Choose the levels at the desk.",
                )
            return Verdict(feedback, score, {key: list(chosen) for key, chosen in self.levels.items()}, own, why)
        if self.levels:
            raise Invalid("This hand-in has no rubric any more.", where="rubric", fix="Load it again.")
        if self.score is not None:
            if handin.points is None:
                raise Invalid("This hand-in has no points.", where="score", fix="Leave the score empty.")
            check_score(self.score, handin.points, handin.step)
        return Verdict(feedback, self.score, {}, own, why)

    def _own(self, handin: HandIn) -> tuple[Decimal | None, str]:
        """The marker's own score with its reason, tidied; ``Invalid`` where one does not fit."""
        why = " ".join(self.why.split())
        if len(why) > LONGEST_WHY:
            raise Invalid(
                f"The reason has {len(why)} characters; {LONGEST_WHY} is the most.", where="why", fix="Shorten it."
            )
        if self.own_score is None:
            return None, why
        if handin.points is None:
            raise Invalid("This hand-in has no points.", where="own_score", fix="Leave the score empty.")
        return check_score(self.own_score, handin.points, handin.step), why

    def final(self, handin: HandIn, kind: Outcome.Kind) -> Verdict:
        """The same to be released: nothing of a rubric is left open."""
        checked, rubric = self.checked(handin), rubric_from_data(handin.rubric)
        if checked.own_score is not None and not checked.why:
            raise Invalid(
                "Another score than the rule makes needs a reason.",
                where="why",
                fix="Say why, or leave your own score away.",
            )
        if rubric is not None and (checked.levels or kind == Outcome.Kind.ACCEPTED):
            rubric.score(checked.levels, Decimal(1), Decimal("0.1"))
        return checked

    def released(self, handin: HandIn, late_days: int, rule: LateRule | None) -> Scored:
        """The score as it goes out, and what it was before; of a verdict that is checked."""
        exact, rubric = self.score, rubric_from_data(handin.rubric)
        if rubric is not None and self.score is not None and handin.points is not None:
            exact = rubric.earned(self.levels, handin.points)
        earned = None if exact is None else to_step(exact, handin.step)
        if self.own_score is not None:
            return Scored(self.own_score, earned, 0, self.why)
        if exact is None:
            return Scored(None, None, 0, "")
        made = after_late(exact, handin.step, late_days, rule)
        return Scored(made.value, made.before_late, made.late_days, "")

    def of(self, draft: DraftMark) -> bool:
        """Whether a draft says just this."""
        kept = (draft.feedback, draft.score, draft.levels, draft.own_score, draft.why)
        return kept == (self.feedback, self.score, self.levels, self.own_score, self.why)

    def put_into(self, draft: DraftMark, now: datetime) -> None:
        """Make it what a draft says."""
        draft.feedback, draft.score, draft.levels = self.feedback, self.score, dict(self.levels)
        draft.own_score, draft.why = self.own_score, self.why
        draft.version, draft.changed_at = draft.version + 1, now
        draft.save()


@dataclass(frozen=True, slots=True)
class Scored:
    """A score as it is released: what was earned, for how many days something was taken, why it is the marker's own."""

    score: Decimal | None
    earned: Decimal | None
    late_days: int
    why: str


def _by_rubric(rubric: Rubric, levels: Judged, handin: HandIn) -> Decimal | None:
    """The score, once no criterion is open and the hand-in has points."""
    rubric.refuse_unknown(levels)
    if handin.points is None or rubric.open_rows(levels):
        return None
    return rubric.score(levels, handin.points, handin.step)


def save_draft(person: Person, submission_id: int, verdict: Verdict, version: int, now: datetime) -> DraftMark:
    """Keep a marker's own draft; ``version`` is the one they saw. Nobody else sees it."""
    outcomes.submission_for(person, Action.MARK, submission_id)
    with deed(person.pk, now):
        reviewed = outcomes.lock_for_review(person, submission_id)
        checked = verdict.checked(reviewed.submission.handin)
        draft, _ = DraftMark.objects.get_or_create(
            submission=reviewed.submission, person=person, defaults={"changed_at": now}
        )
        marks.refuse_done(draft)
        if checked.of(draft):
            return draft
        _refuse_old(draft, version)
        checked.put_into(draft, now)
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
                "levels": draft.levels,
                "own_score": float(draft.own_score) if draft.own_score is not None else None,
                "why": draft.why,
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
    alone: str = "",
    for_all: bool = True,
    apart: str = "",
) -> tuple[Outcome, list[str]]:
    """Accept or send back, and release the mark with it; returns other hand-ins whose holds were released.

    Where two mark independently it is the agreed mark; ``alone`` is why a lead decides without the other. What several
    handed in together is marked for all of them (``for_all``), or for this one with the reason ``apart``.
    """
    with deed(person.pk, now) as doing:
        submission = outcomes.submission_for(person, Action.MARK, submission_id)
        with_it = together.Others([], []) if marks.by_two(submission) else together.locked_others(submission)
        reviewed = outcomes.lock_for_review(person, submission_id)
        handin = reviewed.submission.handin
        apart = together.checked_reason(with_it, apart, for_all=for_all)
        checked = verdict.final(handin, kind)
        agreed = marks.agreed_by(person, reviewed.submission, alone)
        draft = DraftMark.objects.filter(submission=reviewed.submission, person=person).first()
        if draft and not agreed and not checked.of(draft):
            _refuse_old(draft, version)
        check_due_again(handin.group_id, due_again, now)
        rule = late_rule() if handin.points is not None else None
        given = _Given(doing, person, kind, checked, rule, pockets, due_again, agreed)
        mark, others = given.to(reviewed, draft, apart)
        for one in with_it.waiting if for_all else ():
            other = outcomes.Reviewed(one, Portfolio.objects.get(enrolment=one.enrolment))
            more = given.to(other, DraftMark.objects.filter(submission=one, person=person).first(), "", mark)
            others += [title for title in more[1] if title not in others]
        return mark.outcome, others


@dataclass(frozen=True, slots=True)
class _Given:
    """A mark that is released: to one submission, and to those of others who handed in with it."""

    doing: Deed
    person: Person
    kind: Outcome.Kind
    checked: Verdict
    rule: LateRule | None
    pockets: frozenset[int]
    due_again: datetime | None
    agreed: dict[str, Any]

    def to(
        self, reviewed: outcomes.Reviewed, draft: DraftMark | None, apart: str, like: ReleasedMark | None = None
    ) -> tuple[ReleasedMark, list[str]]:
        """Give it to one; ``like``: the mark of another that it goes with. Returns other hand-ins that it unlocked."""
        doing, submission, now = self.doing, reviewed.submission, self.doing.now
        handin = submission.handin
        scored = self.checked.released(handin, late_days(submission, now) if self.rule else 0, self.rule)
        outcome, others = outcomes.give(
            doing, self.person, reviewed, self.kind, pockets=self.pockets, due_again=self.due_again
        )
        mark = ReleasedMark.objects.create(
            outcome=outcome,
            feedback=self.checked.feedback,
            **asdict(scored),
            points=handin.points,
            rubric=handin.rubric if self.checked.levels else {},
            levels=dict(self.checked.levels),
            agreed=self.agreed,
            apart=apart,
            along=like,
        )
        # What was marked independently stays as it was marked.
        if not self.agreed:
            self.checked.put_into(draft or DraftMark(submission=submission, person=self.person), now)
        count = making.release(self.person, outcome, marks.done_by(submission) if self.agreed else ())
        if like is not None:
            count += together.say_to(outcome, like.outcome, now)
        doing.record(
            "mark_released",
            handin.group_id,
            enrolment_id=submission.enrolment_id,
            handin_id=submission.handin_id,
            submission_id=submission.pk,
            outcome=outcome.pk,
            feedback=text_digest(self.checked.feedback),
            annotations=count,
        )
        return mark, others


def have_read(person: Person, submission_id: int, now: datetime) -> ReleasedMark:
    """A student says that they have read the feedback that stands for their submission: once is enough."""
    submission = outcomes.submission_for(person, Action.HAND_IN, submission_id)
    with deed(person.pk, now) as doing:
        standing = ReleasedMark.objects.select_for_update().filter(
            outcome__submission=submission, outcome__voided_at=None, outcome__submission__voided_at=None
        )
        mark = standing.first()
        if mark is None:
            raise Stale(
                "There is no feedback on this submission now.",
                where=submission.receipt,
                fix="Your teacher took it back; it comes again.",
            )
        if mark.read_at is None:
            mark.read_at = now
            mark.save(update_fields=["read_at"])
            doing.record(
                "feedback_read",
                submission.handin.group_id,
                enrolment_id=submission.enrolment_id,
                handin_id=submission.handin_id,
                submission_id=submission_id,
                outcome=mark.outcome_id,
            )
        return mark


def check_due_again(group_id: int, due_again: datetime | None, now: datetime) -> None:
    """``Invalid`` where a new due moment cannot be meant in this class, or has passed."""
    if due_again is not None:
        check_class_days(group_id, due_again=due_again.date())
    if due_again is not None and due_again <= now:
        raise Invalid("The new due date has passed already.", where="due_again", fix="Choose a later day.")


def reopen(person: Person, submission_id: int, now: datetime, *, for_all: bool = False) -> Submission:
    """Take an outcome back: the submission is on the pile again, its mark a draft again of whoever gave it.

    ``for_all``: of all who were given it in the same deed.
    """
    with deed(person.pk, now) as doing:
        named = outcomes.submission_for(person, Action.MARK, submission_id)
        together.locked_others(named)
        reviewed = outcomes.lock_for_review(person, submission_id)
        standing = Outcome.objects.filter(submission=named, voided_at=None).select_related("submission", "mark").first()
        others = together.given_with(standing) if for_all and standing else []
        outcomes.reopen(doing, reviewed)
        for one in others:
            if facts_now(one.enrolment_id, one.handin_id).newest == one.pk:
                outcomes.reopen(doing, outcomes.Reviewed(one, Portfolio.objects.get(enrolment=one.enrolment)))
        return reviewed.submission
