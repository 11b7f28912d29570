"""A standing, a due moment, a submission as lines of an answer: what several views show."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection
from typing import Any

from coatpeg.core.handins.asking import EffectiveDue
from coatpeg.core.handins.standing import Standing
from coatpeg.handins.models import Outcome, Submission


def standing_data(standing: Standing) -> dict[str, Any]:
    """A standing as plain data; the duration in whole seconds."""
    return {
        "status": standing.status.value,
        "late": standing.late,
        "late_days": standing.late_days,
        "late_seconds": int(standing.late_by.total_seconds()) if standing.late_by else 0,
        "overdue": standing.overdue,
    }


def submissions_of(handin_id: int, enrolment_id: int) -> list[dict[str, Any]]:
    """All submissions of one student and hand-in, oldest first, each with its standing outcome: two queries."""
    return submissions_by_handin(enrolment_id, (handin_id,)).get(handin_id, [])


def submissions_by_handin(enrolment_id: int, handins: Collection[int]) -> dict[int, list[dict[str, Any]]]:
    """The submissions of one student by hand-in, oldest first, each with its standing outcome: two queries for all."""
    found = Submission.objects.filter(handin_id__in=handins, enrolment_id=enrolment_id).order_by("handin_id", "number")
    found = found.select_related("by")
    standing = Outcome.objects.filter(submission__in=found, voided_at=None)
    outcomes = {one.submission_id: one for one in standing}
    lines: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for one in found:
        lines[one.handin_id].append(_line(one, outcomes.get(one.pk)))
    return lines


def _line(one: Submission, outcome: Outcome | None) -> dict[str, Any]:
    return {
        "id": one.pk,
        "number": one.number,
        "at": one.at,
        "receipt": one.receipt,
        "voided_at": one.voided_at,
        "for_them": handed_in_for(one),
        "links": one.snapshot["links"],
        "empty": one.snapshot["empty"],
        "left_open": one.left_open,
        "outcome": outcome.kind if outcome else None,
        "outcome_at": outcome.at if outcome else None,
        "outcome_pockets": outcome.pockets if outcome else [],
    }


def handed_in_for(one: Submission) -> dict[str, Any] | None:
    """Who of the staff handed it in for the student, when and how it came; None where the student did.

    Nobody where it was taken in as it stood when it closed.
    """
    if not one.how:
        return None
    by = one.by.full_name if one.by else ""
    return {"by": by, "at": one.entered_at, "how": one.how}


def due_data(due: EffectiveDue) -> dict[str, Any]:
    """A due as plain data: local date and time, and the moment."""
    return {
        "due": due.due.day if due.due else None,
        "due_time": due.due.at if due.due else None,
        "due_at": due.moment,
        "extra_days": due.extra_days,
    }
