"""The sheet of scores."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Router

from coatpeg.core.marking.sheet import Rule
from coatpeg.core.policy import Action
from coatpeg.files.tables import TYPES, Format
from coatpeg.marking.sheet import reading, ruling, shapes
from coatpeg.people.requests import as_json, for_action, now, person_of

router = Router(tags=["marking"])
SEE = for_action(Action.SEE_SUBMISSION)


@router.get("/groups/{group_id}/sheet", response=shapes.SheetShape, operation_id="see_sheet", openapi_extra=SEE)
def see_sheet(request: HttpRequest, group_id: int) -> HttpResponse:
    """Students × hand-ins with points, with totals under the rule that is kept."""
    return as_json(reading.sheet(person_of(request), group_id, now()))


@router.post("/groups/{group_id}/sheet/tried", response=shapes.SheetShape, operation_id="try_sheet", openapi_extra=SEE)
def try_sheet(request: HttpRequest, group_id: int, body: shapes.RuleIn) -> HttpResponse:
    """The same under another rule, which is not kept."""
    return as_json(reading.sheet(person_of(request), group_id, now(), _rule(body)))


@router.put(
    "/groups/{group_id}/sheet",
    response=shapes.SheetShape,
    operation_id="change_sheet",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def change_sheet(request: HttpRequest, group_id: int, body: shapes.ChangeRuleIn) -> HttpResponse:
    """Keep another rule; answers with the sheet under it."""
    ruling.change_rule(person_of(request), group_id, _rule(body), body.version, now())
    return as_json(reading.sheet(person_of(request), group_id, now()))


@router.post("/groups/{group_id}/sheet/table", response=bytes, operation_id="take_sheet_along", openapi_extra=SEE)
def take_sheet_along(request: HttpRequest, group_id: int, body: shapes.SheetTableIn) -> Any:
    """What is shown of the sheet as a file for a spreadsheet."""
    how = Format(body.format)
    content, name = reading.table(person_of(request), group_id, body.students, body.handins, how, now())
    response = HttpResponse(content, content_type=TYPES[how])
    name = f"{name} scores.{how}"
    response.headers["Content-Disposition"] = content_disposition_header(True, name) or "attachment"
    response.headers["Cache-Control"] = "no-store"
    return response


def _rule(body: shapes.RuleIn) -> Rule:
    return Rule(dict(body.weights), body.best, body.missing_is_zero)
