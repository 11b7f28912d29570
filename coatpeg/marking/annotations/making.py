"""Annotations made, changed, taken back, released, answered, settled; what the student does with them.

Decided here: what a marker says is a draft of theirs, kept as it is typed, and goes to the student with the outcome, as
the mark does; a reopened outcome hides it again, and the next one shows it again. Once the student sees it its words
stand: its maker can take it back (and fetch it back), answer it, or say something new. What is added after the outcome
is shown by its marker, all at once. A thread is settled by staff, and goes on with the next answer.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from django.core.files.base import File
from django.db.models import Q, QuerySet

from coatpeg.core.errors import Gone, Invalid, Refused, Stale
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.marking.annotations import (
    COLOURS,
    LONGEST_TEXT,
    Kind,
    Stroke,
    Target,
    checked_strokes,
    placed,
    refuse_empty,
    strokes_to_data,
    target_to_data,
)
from coatpeg.core.marking.releasing import told_at
from coatpeg.core.marking.rubrics import rubric_from_data
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.events.recording import Deed, deed
from coatpeg.files import keeping
from coatpeg.handins.handing import outcomes
from coatpeg.handins.models import Outcome, Submission
from coatpeg.marking.annotations.surfaces import surfaces_of
from coatpeg.marking.models import Annotation, Answer
from coatpeg.notices.putting import put
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.writing import locked_portfolio

MOST = 500
"""Annotations of one marker on a submission."""
MOST_ANSWERS = 200
SHOWN = Q(outcome__isnull=False, outcome__voided_at=None, removed_at=None)
"""What the student sees: released with an outcome that stands."""

_ROWS = Annotation.objects.select_related("person", "outcome", "submission__handin", "submission__enrolment__person")


@dataclass(frozen=True, slots=True)
class Saying:
    """What a marker says, as the page sends it."""

    kind: Kind
    target: Target = field(default_factory=Target)
    text: str = ""
    wording: str | None = None
    strokes: Sequence[Stroke] = ()
    colour: str = ""
    criterion: str = ""
    """Of the rubric: whose level rests on what this is on."""

    def checked(self, submission: Submission, *, spoken: bool) -> dict[str, Any]:
        """The columns that say it; ``Invalid`` where it cannot be said there."""
        text, wording = tidy_text(self.text).strip(), self.wording
        strokes = checked_strokes(self.strokes) if self.kind is Kind.INK else ()
        refuse_empty(self.kind, text, wording, strokes, spoken=spoken)
        if self.colour and self.colour not in COLOURS:
            raise Invalid(f"There is no colour “{self.colour[:20]}”.", where="colour", fix="Choose one of the three.")
        return {
            "kind": self.kind.value,
            "target": target_to_data(placed(self.kind, self.target, surfaces_of(submission))),
            "text": text,
            "wording": tidy_text(wording) if self.kind is Kind.SUGGESTION and wording is not None else None,
            "strokes": strokes_to_data(strokes),
            "colour": self.colour if self.kind is Kind.HIGHLIGHT else "",
            "criterion": self.criterion,
            "criterion_title": _criterion(submission, self.criterion),
        }


def _criterion(submission: Submission, key: str) -> str:
    """What a criterion of the hand-in's rubric is called; ``Invalid`` where there is none of that key."""
    rubric = rubric_from_data(submission.handin.rubric) if key else None
    found = next((row.title for row in rubric.rows if row.key == key), None) if rubric else ""
    if found is None or (key and rubric is None):
        raise Invalid("The rubric has no such criterion now.", where="criterion", fix="Choose another one, or none.")
    return found


def keep(person: Person, submission_id: int, key: str, saying: Saying, version: int, now: datetime) -> Annotation:
    """Keep a marker's annotation under its key: a new one (version 0), or over the version that was seen."""
    with deed(person.pk, now):
        submission = outcomes.lock_for_review(person, submission_id).submission
        found = _own(submission, person, key)
        said = saying.checked(submission, spoken=found is not None and found.voice_id is not None)
        if found is None:
            return _begin(submission, person, key, said, now)
        _refuse_seen(found)
        if all(getattr(found, name) == value for name, value in said.items()) and found.removed_at is None:
            return found
        if found.version != version:
            raise Stale(
                "You changed this comment in another window meanwhile.",
                where="text",
                fix="Both are here: choose one, or put them together.",
                more={"text": found.text, "wording": found.wording, "version": found.version},
            )
        for name, value in said.items():
            setattr(found, name, value)
        found.version, found.changed_at, found.removed_at = found.version + 1, now, None
        found.save()
        return found


def _own(submission: Submission, person: Person, key: str) -> Annotation | None:
    found = Annotation.objects.select_related("outcome", "person").filter(submission=submission, key=key).first()
    if found is not None and found.person_id != person.pk:
        raise Refused("Only whoever made a comment changes it.", fix="Answer it instead.")
    return found


def _begin(submission: Submission, person: Person, key: str, said: dict[str, Any], now: datetime) -> Annotation:
    if Annotation.objects.filter(submission=submission, person=person, removed_at=None).count() >= MOST:
        raise Invalid(
            f"There are {MOST} comments of yours on this submission, which is the most.",
            where="text",
            fix="Take some back, or say it in the feedback.",
        )
    return Annotation.objects.create(submission=submission, person=person, key=key, at=now, changed_at=now, **said)


def _refuse_seen(annotation: Annotation) -> None:
    if annotation.outcome is not None and annotation.outcome.voided_at is None:
        raise Stale(
            "The student sees this already, so its words stand.",
            where="text",
            fix="Take it back and say it anew, or answer it.",
        )


def speak(
    person: Person, submission_id: int, key: str, target: Target, content: File[Any], now: datetime
) -> Annotation:
    """Keep a recording as a comment, or beside the words of one that is there (the gist of it)."""
    outcomes.submission_for(person, Action.MARK, submission_id)
    kept = keeping.keep(content, content.name or "voice")
    if kept.kind != ArtefactKind.SOUND:
        raise Invalid("This is no sound that can be played.", where="file", fix="Record it once more.")
    with deed(person.pk, now):
        submission = outcomes.lock_for_review(person, submission_id).submission
        found = _own(submission, person, key)
        if found is None:
            said = Saying(Kind.COMMENT, target).checked(submission, spoken=True)
            found = _begin(submission, person, key, said, now)
        _refuse_seen(found)
        found.voice, found.version, found.changed_at = kept.stored, found.version + 1, now
        found.save(update_fields=["voice", "version", "changed_at"])
        return found


def named(person: Person, action: Action, annotation_id: int) -> Annotation:
    """An annotation whose submission this person may do ``action`` to, and that they may know of."""
    found = _ROWS.filter(pk=annotation_id).first()
    if found is None:
        raise _gone()
    require_for_student(person, action, found.submission.enrolment)
    if found.person_id != person.pk and not Annotation.objects.filter(SHOWN, pk=annotation_id).exists():
        raise _gone()
    return found


def _gone() -> Gone:
    return Gone("There is no such comment.", fix="Load the submission again.")


def set_removed(person: Person, annotation_id: int, now: datetime, *, removed: bool) -> Annotation:
    """Take one's own annotation back, or fetch it back."""
    with deed(person.pk, now) as doing:
        annotation = locked(named(person, Action.MARK, annotation_id))
        if annotation.person_id != person.pk:
            raise Refused("Only whoever made a comment takes it back.", fix="Answer it instead.")
        if (annotation.removed_at is not None) != removed:
            annotation.removed_at, annotation.version = now if removed else None, annotation.version + 1
            annotation.save(update_fields=["removed_at", "version"])
            if annotation.outcome is not None and annotation.outcome.voided_at is None:
                record(doing, "annotation_removed" if removed else "annotation_restored", annotation)
        return annotation


def locked(annotation: Annotation) -> Annotation:
    """The same, read anew with its portfolio locked."""
    locked_portfolio(Portfolio.objects.get(enrolment=annotation.submission.enrolment).pk)
    return _ROWS.get(pk=annotation.pk)


def record(doing: Deed, verb: str, annotation: Annotation, **more: Any) -> None:
    """Record what happened to an annotation, as part of its student's history."""
    of = annotation.submission
    doing.record(
        verb,
        of.handin.group_id,
        enrolment_id=of.enrolment_id,
        handin_id=of.handin_id,
        submission_id=of.pk,
        annotation=annotation.pk,
        **more,
    )


def _drafts(submission: Submission, people: Iterable[int]) -> QuerySet[Annotation]:
    """What goes out with the next outcome: of these people, and what the student saw before it was reopened."""
    rows = Annotation.objects.filter(submission=submission, removed_at=None)
    return rows.filter(Q(outcome=None, person__in=people) | Q(outcome__voided_at__isnull=False))


def release(person: Person, outcome: Outcome, others: Iterable[int] = ()) -> int:
    """Show what was said, with the outcome that is just given; returns how much. Call within its deed.

    ``others`` are people who marked it too, and whose words go out with it.
    """
    waiting = list(_drafts(outcome.submission, {person.pk, *others}).values_list("pk", flat=True))
    return Annotation.objects.filter(pk__in=waiting).update(outcome=outcome)


def release_many(person: Person, outcomes_given: Sequence[Outcome]) -> dict[int, int]:
    """The same for many outcomes at once: by outcome, how much was shown."""
    by_submission = {one.submission_id: one for one in outcomes_given}
    rows = Annotation.objects.filter(submission__in=by_submission, removed_at=None)
    waiting = list(rows.filter(Q(outcome=None, person=person) | Q(outcome__voided_at__isnull=False)))
    for one in waiting:
        one.outcome = by_submission[one.submission_id]
    Annotation.objects.bulk_update(waiting, ["outcome"], batch_size=500)
    return Counter(one.outcome_id or 0 for one in waiting)


def show(person: Person, submission_id: int, now: datetime) -> int:
    """Show the student what one added after the outcome; returns how much."""
    with deed(person.pk, now) as doing:
        submission = outcomes.lock_for_review(person, submission_id).submission
        outcome = Outcome.objects.filter(submission=submission, voided_at=None).first()
        if outcome is None:
            raise Stale(
                "Nothing has been decided on this submission yet.",
                where=submission.receipt,
                fix="Accept it or send it back: your comments go with that.",
            )
        outcome.submission = submission
        count = release(person, outcome)
        if count:
            of = submission.enrolment
            doing.record(
                "annotations_shown",
                of.group_id,
                enrolment_id=of.pk,
                handin_id=submission.handin_id,
                submission_id=submission_id,
                count=count,
            )
            put(
                doing,
                "annotated",
                of.group_id,
                tell_at=told_at(now),
                enrolment=of.pk,
                submission=submission_id,
                handin=submission.handin_id,
            )
        return count


def answer(person: Person, annotation_id: int, text: str, now: datetime) -> Answer:
    """Answer what is said; whoever said it (or its student) is told."""
    said = tidy_text(text).strip()
    if not said or len(said) > LONGEST_TEXT:
        raise Invalid(
            f"The answer has {len(said)} characters." if said else "There is nothing in the answer yet.",
            where="text",
            fix=f"Write 1 to {LONGEST_TEXT} characters.",
        )
    with deed(person.pk, now) as doing:
        annotation = shown(locked(named(person, Action.ANSWER, annotation_id)))
        if annotation.answers.count() >= MOST_ANSWERS:
            raise Invalid("This thread is full.", where="text", fix="Go on in a new comment.")
        made = Answer.objects.create(annotation=annotation, person=person, text=said, at=now)
        if annotation.settled_at is not None:
            annotation.settled_at = annotation.settled_by = None
            annotation.save(update_fields=["settled_at", "settled_by"])
        record(doing, "answered", annotation, answer=made.pk, text=text_digest(said))
        of = annotation.submission.enrolment
        put(doing, "answered", of.group_id, enrolment=of.pk, answer=made.pk, submission=annotation.submission_id)
        return made


def shown(annotation: Annotation) -> Annotation:
    """The same, where its student sees it."""
    if not Annotation.objects.filter(SHOWN, pk=annotation.pk).exists():
        raise Stale("This comment is not shown now.", where="text", fix="Load the submission again.")
    return annotation


def set_answer_removed(person: Person, answer_id: int, now: datetime, *, removed: bool) -> Answer:
    """Take one's own answer back, or let it stand again."""
    found = Answer.objects.filter(pk=answer_id).first()
    if found is None:
        raise Gone("There is no such answer.", fix="Load the submission again.")
    with deed(person.pk, now) as doing:
        annotation = named(person, Action.ANSWER, found.annotation_id)
        if found.person_id != person.pk:
            raise Refused("Only whoever wrote an answer takes it back.", fix="Answer it instead.")
        if (found.removed_at is not None) != removed:
            found.removed_at = now if removed else None
            found.save(update_fields=["removed_at"])
            record(doing, "answer_removed" if removed else "answer_restored", annotation, answer=answer_id)
        return found


def settle(person: Person, annotation_id: int, now: datetime, *, settled: bool) -> Annotation:
    """Say that a thread is settled, or that it goes on."""
    with deed(person.pk, now) as doing:
        annotation = shown(locked(named(person, Action.MARK, annotation_id)))
        if (annotation.settled_at is not None) != settled:
            annotation.settled_at, annotation.settled_by = (now, person) if settled else (None, None)
            annotation.save(update_fields=["settled_at", "settled_by"])
            record(doing, "thread_settled" if settled else "thread_reopened", annotation)
        return annotation


def tick(person: Person, annotation_id: int, now: datetime, *, done: bool) -> Annotation:
    """The student ticks off what is mended, or not."""
    with deed(person.pk, now) as doing:
        annotation = shown(locked(named(person, Action.HAND_IN, annotation_id)))
        if (annotation.done_at is not None) != done:
            annotation.done_at = now if done else None
            annotation.save(update_fields=["done_at"])
            record(doing, "annotation_ticked", annotation, done=done)
        return annotation


def take_in(person: Person, submission_id: int, said: Iterable[Saying], foreign: list[Any], now: datetime) -> int:
    """Keep annotations of a file as drafts of whoever brings them; returns how many."""
    with deed(person.pk, now):
        submission = outcomes.lock_for_review(person, submission_id).submission
        count = 0
        for one, (key, more) in zip(said, foreign, strict=True):
            if _own(submission, person, key) is None:
                made = _begin(submission, person, key, one.checked(submission, spoken=False), now)
                if more:
                    made.foreign = more
                    made.save(update_fields=["foreign"])
                count += 1
        return count
