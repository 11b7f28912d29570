"""Handing in, taking back, excusing, a due date of one's own."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Status

from coatpeg.core.handins.asking import Due
from coatpeg.core.policy import Action
from coatpeg.handins import lines
from coatpeg.handins.handing import commands, receipt_paper, shapes
from coatpeg.handins.router import router
from coatpeg.handins.shapes import SubmissionLine
from coatpeg.people.requests import for_action, now, person_of


@router.put(
    "/handins/{handin_id}/students/{enrolment_id}/excused",
    response={204: None},
    operation_id="set_excused",
    openapi_extra=for_action(Action.EXCUSE),
)
def set_excused(request: HttpRequest, handin_id: int, enrolment_id: int, body: shapes.ExcuseIn) -> Any:
    """Excuse a student from a hand-in, or end that."""
    commands.set_excused(person_of(request), handin_id, enrolment_id, now(), excused=body.excused)
    return Status(204, None)


@router.put(
    "/handins/{handin_id}/students/{enrolment_id}/due",
    response={204: None},
    operation_id="set_own_due",
    openapi_extra=for_action(Action.SET_OWN_DUE),
)
def set_own_due(request: HttpRequest, handin_id: int, enrolment_id: int, body: shapes.OwnDueIn) -> Any:
    """Give a student a due date of their own for one hand-in, or take it away."""
    due = Due(body.day, body.at) if body.day else None
    commands.set_own_due(person_of(request), handin_id, enrolment_id, due, now())
    return Status(204, None)


@router.post(
    "/portfolios/{portfolio_id}/handins/{handin_id}/submissions",
    response={201: SubmissionLine},
    operation_id="hand_in",
    openapi_extra=for_action(Action.HAND_IN),
)
def hand_in(request: HttpRequest, portfolio_id: int, handin_id: int, body: shapes.HandInPress) -> Any:
    """Hand in: freeze, receipt, lock."""
    made = commands.hand_in(
        person_of(request),
        portfolio_id,
        handin_id,
        body.seen,
        now(),
        even_if_empty=body.even_if_empty,
        judged=body.judged,
    )
    return Status(201, next(one for one in lines.submissions_of(handin_id, made.enrolment_id) if one["id"] == made.pk))


@router.post(
    "/submissions/{submission_id}/take-back",
    response={204: None},
    operation_id="take_back",
    openapi_extra=for_action(Action.HAND_IN),
)
def take_back(request: HttpRequest, submission_id: int) -> Any:
    """Take the newest submission back before it is marked."""
    commands.take_back(person_of(request), submission_id, now())
    return Status(204, None)


@router.get(
    "/submissions/{submission_id}/receipt.pdf",
    response=bytes,
    operation_id="print_receipt",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def print_receipt(request: HttpRequest, submission_id: int) -> HttpResponse:
    """The receipt of a submission as PDF: code, moment, what was handed in, with checksums."""
    made, code = receipt_paper.receipt_pdf(person_of(request), submission_id)
    response = HttpResponse(made, content_type="application/pdf")
    response["Content-Disposition"] = f'attachment; filename="receipt-{code}.pdf"'
    response["Cache-Control"] = "no-store"
    return response
