"""A log over the class."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Query

from coatpeg.core.policy import Action
from coatpeg.files.tables import TYPES, Format
from coatpeg.handins.board import class_log, looking_shapes
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of


@router.get(
    "/groups/{group_id}/logs/{pocket_id}",
    response=looking_shapes.ClassLogShape,
    operation_id="see_class_log",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_class_log(
    request: HttpRequest,
    group_id: int,
    pocket_id: int,
    wanted: Query[looking_shapes.ClassLogIn],
    first: Annotated[int, Query(ge=0, le=10_000_000)] = 0,
) -> Any:
    """All students' rows of one log, a page of them, with the sums of all that are wanted."""
    return class_log.class_log(person_of(request), group_id, pocket_id, _rows_wanted(wanted), first, now())


@router.get(
    "/groups/{group_id}/logs/{pocket_id}/{ending}",
    response=bytes,
    operation_id="take_class_log_along",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def take_class_log_along(
    request: HttpRequest,
    group_id: int,
    pocket_id: int,
    ending: Literal["csv", "xlsx", "ods"],
    wanted: Query[looking_shapes.ClassLogIn],
) -> HttpResponse:
    """The rows that are wanted as a file for a spreadsheet, in their order."""
    how = Format(ending)
    person, rows = person_of(request), _rows_wanted(wanted)
    content, name = class_log.class_log_table(person, group_id, pocket_id, rows, how, now())
    response = HttpResponse(content, content_type=TYPES[how])
    response.headers["Content-Disposition"] = content_disposition_header(True, f"{name}.{how}") or "attachment"
    return response


def _rows_wanted(wanted: looking_shapes.ClassLogIn) -> class_log.Wanted:
    return class_log.Wanted(wanted.period, wanted.student, wanted.words, wanted.by, wanted.descending)
