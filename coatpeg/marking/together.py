"""One mark for all who handed something in together.

What one press handed in for several is marked once: whoever marks one of its submissions marks those of the others
that wait, each with what lateness takes from its own, and what was said on a place in the work goes to all. Decided
here: a mark for one of them alone needs a reason, which the student reads with it; so does another mark later, when
that of one was reopened. Those who were excused, handed in again or were decided on meanwhile are left out. Of two who
mark independently each decides for each student.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import datetime
from typing import Any, NamedTuple

from django.db.models import Q

from coatpeg.core.errors import Invalid
from coatpeg.handins.handing.records import facts_now
from coatpeg.handins.models import Outcome, Submission
from coatpeg.marking.models import Annotation, ReleasedMark
from coatpeg.portfolios.writing import locked_of

LONGEST_REASON = 500


class Others(NamedTuple):
    """The submissions of the others of one press: those that wait for a mark, and those that have one."""

    waiting: list[Submission]
    decided: list[Submission]


def others_of(submission: Submission) -> Others:
    """Those of the others that are the newest of their students: two queries where there is none, else some each."""
    found = Others([], [])
    for one in _others(submission):
        facts = facts_now(one.enrolment_id, one.handin_id)
        if facts.excused or facts.newest != one.pk:
            continue
        (found.waiting if facts.outcome is None else found.decided).append(one)
    return found


def _others(submission: Submission) -> list[Submission]:
    first = submission.along_id or submission.pk
    return list(
        Submission.objects.filter(Q(pk=first) | Q(along=first), voided_at=None)
        .exclude(pk=submission.pk)
        .select_related("handin", "enrolment__person", "enrolment__group")
        .order_by("pk")
    )


def locked_others(submission: Submission) -> Others:
    """The same with their portfolios, and that of this one, locked in the order in which everybody locks them."""
    others = _others(submission)
    if not others:
        return Others([], [])
    locked_of(submission.enrolment_id, *(one.enrolment_id for one in others))
    return others_of(submission)


def checked_reason(others: Others, reason: str, *, for_all: bool) -> str:
    """Why one of several is marked alone, tidied; ``Invalid`` where it is and no reason is given."""
    tidy = " ".join(reason.split())
    if len(tidy) > LONGEST_REASON:
        raise Invalid(
            f"The reason has {len(tidy)} characters; {LONGEST_REASON} is the most.", where="apart", fix="Shorten it."
        )
    apart = others.decided or (others.waiting and not for_all)
    if apart and not tidy:
        count = 1 + len(others.waiting) + len(others.decided)
        raise Invalid(
            f"{count} students handed this in together; a mark for one of them alone needs a reason.",
            where="apart",
            fix="Say why. The student reads it with the mark.",
        )
    return tidy if apart else ""


def given_with(outcome: Outcome) -> list[Submission]:
    """The submissions of the others that were decided by the same press, and still stand so."""
    first = outcome.mark.along_id or outcome.mark.pk
    same = ReleasedMark.objects.filter(Q(pk=first) | Q(along=first), outcome__voided_at=None)
    decided = set(same.values_list("outcome__submission", flat=True))
    return [one for one in _others(outcome.submission) if one.pk in decided]


def say_to(outcome: Outcome, like: Outcome, now: datetime) -> int:
    """Say to another student of a group what was said on the same work of the first; returns how much."""
    said = list(Annotation.objects.filter(outcome=like, removed_at=None))
    places = dict(_places(like.submission.snapshot, outcome.submission.snapshot))
    made = []
    for one in said:
        evidence = one.target.get("evidence")
        if evidence is not None and evidence not in places:
            continue  # it is on something that only the first one has
        target = {**one.target, **({"evidence": places[evidence]} if evidence is not None else {})}
        made.append(
            Annotation(
                submission=outcome.submission,
                person_id=one.person_id,
                key=one.key,
                kind=one.kind,
                target=target,
                text=one.text,
                wording=one.wording,
                strokes=one.strokes,
                colour=one.colour,
                voice_id=one.voice_id,
                criterion=one.criterion,
                criterion_title=one.criterion_title,
                foreign=one.foreign,
                at=one.at,
                changed_at=now,
                outcome=outcome,
            )
        )
    had = Annotation.objects.filter(submission=outcome.submission, key__in=[one.key for one in made])
    kept = set(had.values_list("key", flat=True))
    had.update(outcome=outcome)
    return len(Annotation.objects.bulk_create([one for one in made if one.key not in kept])) + len(kept)


def _places(mine: Mapping[str, Any], theirs: Mapping[str, Any]) -> Iterator[tuple[int, int]]:
    """Which evidence of one snapshot is the same as which of another: that of the same pocket with the same words."""
    pockets = {one["id"]: one["evidence"] for one in theirs["pockets"]}
    for pocket in mine["pockets"]:
        for one, other in zip(pocket["evidence"], pockets.get(pocket["id"], []), strict=False):
            if one["text"] == other["text"]:
                yield one["id"], other["id"]
