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
        named = {key: one.target[key] for key in ("evidence", "row") if one.target.get(key) is not None}
        if any((key, pk) not in places for key, pk in named.items()):
            continue  # it is on something that only the first one has
        target = {**one.target, **{key: places[key, pk] for key, pk in named.items()}}
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


def _places(mine: Mapping[str, Any], theirs: Mapping[str, Any]) -> Iterator[tuple[tuple[str, int], int]]:
    """Which evidence and rows of one snapshot are the same as which of another, as (*evidence* or *row*, id) and id.

    A page is the same where it is of the same pocket and has the same words; what one of them put in is known by its
    id with whoever did.
    """
    pockets = {one["id"]: one for one in theirs["pockets"]}
    for pocket in mine["pockets"]:
        other = pockets.get(pocket["id"])
        if other is None:
            continue
        pages = ([one for one in of["evidence"] if not one["artefact"]] for of in (pocket, other))
        for one, same in zip(*pages, strict=False):
            if one["text"] == same["text"]:
                yield ("evidence", one["id"]), same["id"]
        for kind, those, others in (
            ("evidence", pocket["evidence"], other["evidence"]),
            ("row", pocket.get("log", {}).get("rows", []), other.get("log", {}).get("rows", [])),
        ):
            known = {one.get("of", one["id"]): one["id"] for one in others}
            for one in those:
                if one.get("of", one["id"]) in known:
                    yield (kind, one["id"]), known[one.get("of", one["id"])]
