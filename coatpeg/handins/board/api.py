"""The board, the list of hand-ins, looking in over a class, a caseload."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header

from coatpeg.core.policy import Action
from coatpeg.files.tables import TYPES, Format
from coatpeg.handins.board import (
    caseloads,
    changed,
    kept,
    listing,
    looking,
    looking_shapes,
    pegs,
    shapes,
    tags,
    taking_along,
)
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of


@router.get(
    "/groups/{group_id}/pegs",
    response={200: shapes.BoardShape, 304: None},
    by_alias=True,
    operation_id="see_pegs",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_pegs(request: HttpRequest, group_id: int) -> HttpResponse:
    """All students × all hand-ins. Written straight to JSON: a year group's board is a megabyte.

    Who names the board that they have (``If-None-Match``) gets no body while it stands.
    """
    person, at = person_of(request), now()
    has = request.headers.get("If-None-Match", "")
    if has and tags.still_stands(person, group_id, has, at):
        response = HttpResponse(status=304)
        response.headers["ETag"] = has
        return response
    board, name = kept.board(person, group_id, at)
    response = HttpResponse(board, content_type="application/json")
    response.headers["ETag"] = name
    return response


@router.post(
    "/groups/{group_id}/pegs/table",
    response=bytes,
    operation_id="take_pegs_along",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def take_pegs_along(request: HttpRequest, group_id: int, body: shapes.TableIn) -> HttpResponse:
    """The pegs that are shown as a file for a spreadsheet, in their order."""
    how = Format(body.format)
    content, name = taking_along.table(person_of(request), group_id, body.students, body.handins, how, now())
    response = HttpResponse(content, content_type=TYPES[how])
    response.headers["Content-Disposition"] = content_disposition_header(True, f"{name}.{how}") or "attachment"
    return response


@router.get(
    "/groups/{group_id}/handins/{handin_id}/students/{enrolment_id}",
    response=shapes.OpenedCell,
    operation_id="see_cell",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_cell(request: HttpRequest, group_id: int, handin_id: int, enrolment_id: int) -> Any:
    """One cell of the board, opened."""
    return pegs.opened_cell(person_of(request), group_id, handin_id, enrolment_id, now())


@router.get(
    "/groups/{group_id}/students/{enrolment_id}/asked",
    response=shapes.AskedShape,
    operation_id="see_asked",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_asked(request: HttpRequest, group_id: int, enrolment_id: int) -> Any:
    """What a student is asked for, and what not."""
    return listing.asked_of(person_of(request), group_id, enrolment_id, now())


@router.get(
    "/groups/{group_id}/handins",
    response=shapes.HandInsShape,
    by_alias=True,
    operation_id="see_handins",
    openapi_extra=for_action(Action.SEE_HANDINS),
)
def see_handins(request: HttpRequest, group_id: int) -> Any:
    """The hand-ins of a class and what a new one can be made of."""
    return listing.handins(person_of(request), group_id, now())


@router.get(
    "/groups/{group_id}/portfolios",
    response=list[looking_shapes.PortfolioLine],
    operation_id="see_portfolios",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_portfolios(request: HttpRequest, group_id: int) -> Any:
    """The portfolios of a class by name, with the last work in each."""
    return looking.portfolios(person_of(request), group_id, now())


@router.get(
    "/groups/{group_id}/own-pages",
    response=looking_shapes.OwnPagesOfClass,
    operation_id="see_own_pages_of_class",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_own_pages_of_class(request: HttpRequest, group_id: int) -> Any:
    """The pages that students made by themselves, over the class."""
    return looking.own_pages_of_class(person_of(request), group_id, now())


@router.get(
    "/groups/{group_id}/pockets/{pocket_id}",
    response=looking_shapes.PocketGrid,
    operation_id="see_pocket_of_class",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_pocket_of_class(request: HttpRequest, group_id: int, pocket_id: int) -> Any:
    """One pocket over the class."""
    return looking.pocket_of_class(person_of(request), group_id, pocket_id, now())


@router.get(
    "/groups/{group_id}/caseload",
    response=shapes.CaseloadShape,
    operation_id="see_caseload",
    openapi_extra=for_action(Action.SEE_CASELOAD),
)
def see_caseload(request: HttpRequest, group_id: int) -> Any:
    """The students of a caseload with how they stand in their classes."""
    return caseloads.overview(person_of(request), group_id, now())


@router.get(
    "/groups/{group_id}/changes",
    response=shapes.ChangesShape,
    operation_id="follow_changes",
    openapi_extra=for_action(Action.FOLLOW_CHANGES),
)
def follow_changes(request: HttpRequest, group_id: int, after: int | None = None, *, board: bool = False) -> Any:
    """What was committed after a cursor; a student is told their own and the class's, nobody else's."""
    return changed.changes(person_of(request), group_id, after, now(), board=board)
