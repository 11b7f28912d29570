"""Phrases for the feedback."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router, Status

from coatpeg.core.policy import Action
from coatpeg.marking.phrases import keeping, shapes
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["marking"])
MARK = for_action(Action.MARK)


@router.get(
    "/groups/{group_id}/phrases",
    response=list[shapes.PhraseShape],
    operation_id="see_phrases",
    openapi_extra=MARK,
)
def see_phrases(request: HttpRequest, group_id: int, handin: int | None = None) -> Any:
    """One's own phrases and those shared in a class, with how often each was said in a hand-in."""
    return keeping.found(person_of(request), group_id, handin)


@router.post(
    "/groups/{group_id}/phrases",
    response={201: shapes.PhraseShape},
    operation_id="keep_phrase",
    openapi_extra=MARK,
)
def keep_phrase(request: HttpRequest, group_id: int, body: shapes.PhraseIn) -> Any:
    """Keep a phrase."""
    return Status(201, keeping.keep(person_of(request), group_id, body.text, now(), shared=body.shared))


@router.patch(
    "/groups/{group_id}/phrases/{phrase_id}",
    response=shapes.PhraseShape,
    operation_id="change_phrase",
    openapi_extra=MARK,
)
def change_phrase(request: HttpRequest, group_id: int, phrase_id: int, body: shapes.ChangePhraseIn) -> Any:
    """Change a phrase of one's own."""
    return keeping.change(person_of(request), group_id, phrase_id, now(), text=body.text, shared=body.shared)


@router.delete(
    "/groups/{group_id}/phrases/{phrase_id}",
    response={204: None},
    operation_id="drop_phrase",
    openapi_extra=MARK,
)
def drop_phrase(request: HttpRequest, group_id: int, phrase_id: int) -> Any:
    """Drop a phrase of one's own."""
    keeping.drop(person_of(request), group_id, phrase_id)
    return Status(204, None)
