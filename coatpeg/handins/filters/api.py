"""Kept filters of the pegs."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Status

from coatpeg.core.policy import Action
from coatpeg.handins.filters import keeping, shapes
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, person_of


@router.get(
    "/groups/{group_id}/filters",
    response=list[shapes.KeptFilterShape],
    operation_id="see_filters",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_filters(request: HttpRequest, group_id: int) -> Any:
    """One's own kept filters of a class, and those that co-staff share."""
    return keeping.kept(person_of(request), group_id)


@router.post(
    "/groups/{group_id}/filters",
    response={201: shapes.KeptFilterShape},
    operation_id="keep_filter",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def keep_filter(request: HttpRequest, group_id: int, body: shapes.KeepFilterIn) -> Any:
    """Keep a filter under a name."""
    return Status(201, keeping.keep(person_of(request), group_id, body.name, body.address, shared=body.shared))


@router.patch(
    "/groups/{group_id}/filters/{filter_id}",
    response=shapes.KeptFilterShape,
    operation_id="change_filter",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def change_filter(request: HttpRequest, group_id: int, filter_id: int, body: shapes.ChangeFilterIn) -> Any:
    """Change a kept filter of one's own."""
    return keeping.change(
        person_of(request), group_id, filter_id, name=body.name, address=body.address, shared=body.shared
    )


@router.delete(
    "/groups/{group_id}/filters/{filter_id}",
    response={204: None},
    operation_id="drop_filter",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def drop_filter(request: HttpRequest, group_id: int, filter_id: int) -> Any:
    """Drop a kept filter of one's own."""
    keeping.drop(person_of(request), group_id, filter_id)
    return Status(204, None)
