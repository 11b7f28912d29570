"""Annotations as somebody may see them, and as a Web Annotation file."""

from __future__ import annotations

import json
import uuid
from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.db.models import Prefetch, Q
from django.http import Http404

from coatpeg.core.errors import Invalid
from coatpeg.core.marking import web_annotations
from coatpeg.core.marking.annotations import Kind, strokes_from_data, target_from_data
from coatpeg.core.marking.web_annotations import Read, Said
from coatpeg.core.policy import Action, decide
from coatpeg.files.models import StoredFile
from coatpeg.handins.handing.outcomes import submission_for
from coatpeg.handins.models import Submission
from coatpeg.marking.annotations import making
from coatpeg.marking.annotations.surfaces import surfaces_of
from coatpeg.marking.models import Annotation, Answer
from coatpeg.marking.two import marks
from coatpeg.people.access import to_student
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for

LARGEST_FILE = 8 * 1024 * 1024
"""Bytes of a Web Annotation file."""


def of_submission(person: Person, submission_id: int) -> list[dict[str, Any]]:
    """What this person may see: what its student sees, and drafts. Four queries beside the policy's."""
    return [data(one, person) for one in seen_on(person, submission_for(person, Action.SEE_SUBMISSION, submission_id))]


def seen_on(person: Person, submission: Submission, *, own: bool = False) -> Iterable[Annotation]:
    """The same as rows, of a submission that this person may read.

    Who marks sees what all who mark have said so far, with who and when; where two mark independently, and in what is
    taken along (``own``), of drafts their own only.
    """
    if not decide(Action.MARK, to_student(person, submission.enrolment)).allowed:
        return _seen([submission.pk], making.SHOWN)
    drafts = Q(removed_at=None, person=person) if own or marks.by_two(submission) else Q(removed_at=None)
    return _seen([submission.pk], making.SHOWN | drafts)


def _seen(submissions: Iterable[int], seen: Q) -> Iterable[Annotation]:
    answers = Prefetch("answers", Answer.objects.filter(removed_at=None).select_related("person"))
    rows = Annotation.objects.filter(seen, submission__in=submissions).select_related("person", "outcome", "settled_by")
    return rows.prefetch_related(answers)


def of_portfolio(person: Person, portfolio_id: int) -> list[dict[str, Any]]:
    """What a student sees on all that came back to them: of each hand-in on the submission that stands."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    rows = Submission.objects.filter(enrolment=portfolio.enrolment, voided_at=None, handin__taken_away_at=None)
    newest = dict(rows.order_by("number").values_list("handin_id", "pk"))
    return [data(one, person) for one in _seen(newest.values(), making.SHOWN)]


def data(one: Annotation, person: Person) -> dict[str, Any]:
    """An annotation as plain data."""
    shown = one.outcome is not None and one.outcome.voided_at is None
    return {
        "id": one.pk,
        "key": one.key,
        "submission": one.submission_id,
        "kind": one.kind,
        "target": one.target,
        "text": one.text,
        "wording": one.wording,
        "strokes": [{"colour": colour, "width": width, "points": points} for colour, width, points in one.strokes],
        "colour": one.colour,
        "criterion": one.criterion,
        "criterion_title": one.criterion_title,
        "voice": one.voice_id is not None,
        "who": one.person.full_name,
        "mine": one.person_id == person.pk,
        "at": one.at,
        "version": one.version,
        "shown": shown,
        "settled_at": one.settled_at,
        "settled_by": one.settled_by.full_name if one.settled_by else "",
        "done_at": one.done_at,
        "choice": one.choice,
        "chosen_at": one.chosen_at,
        "answers": [answer_data(of, person) for of in one.answers.all() if of.removed_at is None],
    }


def answer_data(one: Answer, person: Person) -> dict[str, Any]:
    """An answer as plain data."""
    return {
        "id": one.pk,
        "who": one.person.full_name,
        "mine": one.person_id == person.pk,
        "at": one.at,
        "text": one.text,
    }


def voice_of(person: Person, annotation_id: int) -> StoredFile:
    """The recording of an annotation that this person may see."""
    found = Annotation.objects.filter(pk=annotation_id).select_related("voice").first()
    submission = submission_for(person, Action.SEE_SUBMISSION, found.submission_id) if found else None
    seen = submission is not None and any(one.pk == annotation_id for one in seen_on(person, submission))
    if found is None or found.voice is None or not seen:
        raise Http404
    return found.voice


def as_file(person: Person, submission_id: int) -> tuple[dict[str, Any], str]:
    """What this person may see as a Web Annotation collection, and the name of its file."""
    submission = submission_for(person, Action.SEE_SUBMISSION, submission_id)
    said = [_said(one) for one in seen_on(person, submission, own=True)]
    title = f"{submission.enrolment.person.full_name}, {submission.handin.title}, {submission.number}"
    return web_annotations.collection(submission.pk, title, said, surfaces_of(submission)), title


def _said(one: Annotation) -> Said:
    return Said(
        Kind(one.kind),
        target_from_data(one.target),
        one.text,
        one.wording,
        strokes_from_data(one.strokes),
        who=one.person.full_name,
        at=one.at,
        changed=one.changed_at if one.changed_at != one.at else None,
        id=f"urn:uuid:{one.key}",
        answers=tuple((of.person.full_name, of.at, of.text) for of in one.answers.all()),
        voice=f"/api/annotations/{one.pk}/voice" if one.voice_id else "",
        foreign=one.foreign,
    )


def take_file(person: Person, submission_id: int, content: bytes, now: datetime) -> tuple[int, tuple[str, ...]]:
    """Take a Web Annotation file in as drafts; returns how many were new, and what was not understood."""
    submission = submission_for(person, Action.MARK, submission_id)
    if len(content) > LARGEST_FILE:
        raise Invalid("This file is larger than 8 MB.", where="file", fix="Divide it.")
    try:
        document = json.loads(content)
    except (ValueError, RecursionError) as error:
        raise Invalid("This file is no JSON.", where="file", fix="Choose a Web Annotation file (JSON-LD).") from error
    found = web_annotations.read(document, surfaces_of(submission))
    sayings = [making.Saying(one.kind, one.target, one.text, one.wording, one.strokes) for one in found.said]
    return making.take_in(person, submission_id, sayings, _keys(submission, person, found), now), found.notes


def _keys(submission: Submission, person: Person, found: Read) -> list[tuple[str, dict[str, Any]]]:
    """A key for each, the same for the same file brought by the same person again; and the terms that are not ours."""
    base = uuid.uuid5(uuid.NAMESPACE_URL, f"urn:coat-peg:{submission.pk}:{person.pk}")
    return [
        (str(uuid.uuid5(base, f"{place} {one.kind} {one.target} {one.text} {one.wording}")), dict(one.foreign))
        for place, one in enumerate(found.said)
    ]
