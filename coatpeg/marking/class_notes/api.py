"""Notes to the class."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router

from coatpeg.core.policy import Action
from coatpeg.marking.class_notes import noting, shapes
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["marking"])
MARK = for_action(Action.MARK)


@router.get(
    "/groups/{group_id}/handins/{handin_id}/class-notes",
    response=list[shapes.ClassNoteShape],
    operation_id="see_class_notes",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def see_class_notes(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """What was said to all whom a hand-in is asked of."""
    return noting.of_handin(person_of(request), group_id, handin_id)


@router.get(
    "/portfolios/{portfolio_id}/class-notes",
    response=list[shapes.ClassNoteShape],
    operation_id="read_class_notes",
    openapi_extra=for_action(Action.SEE_PORTFOLIO),
)
def read_class_notes(request: HttpRequest, portfolio_id: int) -> Any:
    """The same on all hand-ins that a student is asked for."""
    return noting.for_student(person_of(request), portfolio_id, now())


@router.post(
    "/groups/{group_id}/handins/{handin_id}/class-notes",
    response=shapes.ClassNoteShape,
    operation_id="tell_class",
    openapi_extra=MARK,
)
def tell_class(request: HttpRequest, group_id: int, handin_id: int, body: shapes.ClassNoteIn) -> Any:
    """Say something to all whom a hand-in is asked of."""
    person = person_of(request)
    return noting.data(noting.note(person, group_id, handin_id, body.key, body.text, now()), person)


@router.delete(
    "/groups/{group_id}/class-notes/{class_note_id}",
    response=shapes.ClassNoteShape,
    operation_id="remove_class_note",
    openapi_extra=MARK,
)
def remove_class_note(request: HttpRequest, group_id: int, class_note_id: int) -> Any:
    """Take it back."""
    person = person_of(request)
    return noting.data(noting.set_removed(person, group_id, class_note_id, now(), removed=True), person)


@router.post(
    "/groups/{group_id}/class-notes/{class_note_id}/restore",
    response=shapes.ClassNoteShape,
    operation_id="restore_class_note",
    openapi_extra=MARK,
)
def restore_class_note(request: HttpRequest, group_id: int, class_note_id: int) -> Any:
    """Fetch it back."""
    person = person_of(request)
    return noting.data(noting.set_removed(person, group_id, class_note_id, now(), removed=False), person)
