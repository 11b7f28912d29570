"""Putting two accounts of one student together, and taking them apart."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.http import HttpRequest
from ninja import Router, Status

from coatpeg.core.policy import Action
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape
from coatpeg.setup.roster import together

router = Router(tags=["accounts"])
KEEP = for_action(Action.KEEP_ACCOUNTS)


class TwoIn(Shape):
    """The account that stays, and the one that is closed."""

    kept: int
    other: int


class TogetherMeaning(Shape):
    """What it would mean, by names of classes; of locked pockets and hand-ins *class: title*."""

    moved: list[str]
    ended: list[str]
    both: list[str]
    locked: list[str]
    handed_in: list[str]


class TogetherShape(Shape):
    """Two accounts that were put together."""

    id: int
    kept: str
    username: str
    other: str
    other_username: str
    by: str
    at: datetime


class TogetherId(Shape):
    """By which it is undone."""

    id: int


@router.get(
    "/accounts/together", response=list[TogetherShape], operation_id="see_accounts_together", openapi_extra=KEEP
)
def see_accounts_together(request: HttpRequest) -> Any:
    """What was put together and not taken apart."""
    return together.standing(person_of(request))


@router.post(
    "/accounts/together/look", response=TogetherMeaning, operation_id="look_at_accounts_together", openapi_extra=KEEP
)
def look_at_accounts_together(request: HttpRequest, body: TwoIn) -> Any:
    """What putting two accounts together would mean; nothing is written."""
    return together.look(person_of(request), body.kept, body.other)


@router.post("/accounts/together", response=TogetherId, operation_id="put_accounts_together", openapi_extra=KEEP)
def put_accounts_together(request: HttpRequest, body: TwoIn) -> Any:
    """Put two accounts of one student together."""
    return {"id": together.put_together(person_of(request), body.kept, body.other, now())}


@router.delete(
    "/accounts/together/{together_id}",
    response={204: None},
    operation_id="take_accounts_apart",
    openapi_extra=KEEP,
)
def take_accounts_apart(request: HttpRequest, together_id: int) -> Any:
    """Take them apart again."""
    together.take_apart(person_of(request), together_id, now())
    return Status(204, None)
