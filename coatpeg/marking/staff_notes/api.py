"""Notes that staff keep for themselves."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router

from coatpeg.core.policy import Action
from coatpeg.marking.staff_notes import noting, shapes
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["marking"])
KEEP = for_action(Action.KEEP_STAFF_NOTES)


@router.get(
    "/portfolios/{portfolio_id}/staff-notes",
    response=list[shapes.StaffNoteShape],
    operation_id="see_staff_notes",
    openapi_extra=for_action(Action.SEE_STAFF_NOTES),
)
def see_staff_notes(request: HttpRequest, portfolio_id: int) -> Any:
    """What staff noted on a student in a class."""
    return noting.notes(person_of(request), portfolio_id)


@router.post(
    "/portfolios/{portfolio_id}/staff-notes",
    response=shapes.StaffNoteShape,
    operation_id="keep_staff_note",
    openapi_extra=KEEP,
)
def keep_staff_note(request: HttpRequest, portfolio_id: int, body: shapes.StaffNoteIn) -> Any:
    """Note something."""
    person = person_of(request)
    return noting.data(noting.note(person, portfolio_id, body.text, body.submission, body.evidence, now()), person)


@router.delete(
    "/staff-notes/{note_id}", response=shapes.StaffNoteShape, operation_id="remove_staff_note", openapi_extra=KEEP
)
def remove_staff_note(request: HttpRequest, note_id: int) -> Any:
    """Take one's own note back."""
    person = person_of(request)
    return noting.data(noting.set_removed(person, note_id, now(), removed=True), person)


@router.post(
    "/staff-notes/{note_id}/restore",
    response=shapes.StaffNoteShape,
    operation_id="restore_staff_note",
    openapi_extra=KEEP,
)
def restore_staff_note(request: HttpRequest, note_id: int) -> Any:
    """Fetch it back."""
    person = person_of(request)
    return noting.data(noting.set_removed(person, note_id, now(), removed=False), person)
