"""The board, the student's views, setting a hand-in, handing in."""

from __future__ import annotations

from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from coatpeg.core.asking import Due
from coatpeg.core.policy import Action
from coatpeg.handins import (
    board,
    caseloads,
    commands,
    listing,
    looking,
    looking_shapes,
    news,
    schemas,
    setting,
    worklists,
)
from coatpeg.people.requests import now, person_of
from coatpeg.people.schemas import Named

router = Router(tags=["hand-ins"])


def _action(action: Action) -> dict[str, str]:
    return {"x-action": action.name}


@router.get(
    "/groups/{group_id}/pegs",
    response=schemas.BoardShape,
    operation_id="see_pegs",
    openapi_extra=_action(Action.SEE_BOARD),
)
def see_pegs(request: HttpRequest, group_id: int) -> HttpResponse:
    """All students × all hand-ins. Written straight to JSON: a year group's board is a megabyte."""
    data = board.board(person_of(request), group_id, now())
    return HttpResponse(orjson.dumps(data, option=orjson.OPT_UTC_Z), content_type="application/json")


@router.get(
    "/groups/{group_id}/handins/{handin_id}/students/{enrolment_id}",
    response=schemas.OpenedCell,
    operation_id="see_cell",
    openapi_extra=_action(Action.SEE_BOARD),
)
def see_cell(request: HttpRequest, group_id: int, handin_id: int, enrolment_id: int) -> Any:
    """One cell of the board, opened."""
    return board.opened_cell(person_of(request), group_id, handin_id, enrolment_id, now())


@router.get(
    "/groups/{group_id}/students/{enrolment_id}/asked",
    response=schemas.AskedShape,
    operation_id="see_asked",
    openapi_extra=_action(Action.SEE_BOARD),
)
def see_asked(request: HttpRequest, group_id: int, enrolment_id: int) -> Any:
    """What a student is asked for, and what not."""
    return listing.asked_of(person_of(request), group_id, enrolment_id, now())


@router.put(
    "/handins/{handin_id}/students/{enrolment_id}/excused",
    response={204: None},
    operation_id="set_excused",
    openapi_extra=_action(Action.EXCUSE),
)
def set_excused(request: HttpRequest, handin_id: int, enrolment_id: int, body: schemas.ExcuseIn) -> Any:
    """Excuse a student from a hand-in, or end that."""
    commands.set_excused(person_of(request), handin_id, enrolment_id, now(), excused=body.excused)
    return Status(204, None)


@router.put(
    "/handins/{handin_id}/students/{enrolment_id}/due",
    response={204: None},
    operation_id="set_own_due",
    openapi_extra=_action(Action.SET_OWN_DUE),
)
def set_own_due(request: HttpRequest, handin_id: int, enrolment_id: int, body: schemas.OwnDueIn) -> Any:
    """Give a student a due date of their own for one hand-in, or take it away."""
    due = Due(body.day, body.at) if body.day else None
    commands.set_own_due(person_of(request), handin_id, enrolment_id, due, now())
    return Status(204, None)


@router.get(
    "/groups/{group_id}/handins",
    response=schemas.HandInsShape,
    by_alias=True,
    operation_id="see_handins",
    openapi_extra=_action(Action.SEE_HANDINS),
)
def see_handins(request: HttpRequest, group_id: int) -> Any:
    """The hand-ins of a class and what a new one can be made of."""
    return listing.handins(person_of(request), group_id, now())


def _plan(body: schemas.PlanIn) -> setting.Plan:
    return setting.Plan(
        title=body.title,
        pockets=tuple(body.pockets),
        opens=body.opens,
        due=Due(body.due.day, body.due.at) if body.due else None,
        period_dues={one.period: Due(one.due.day, one.due.at) for one in body.periods if one.due},
        periods=None if body.for_everyone else frozenset(one.period for one in body.periods if one.asked),
        points=body.points,
        step=body.step,
    )


@router.post(
    "/groups/{group_id}/handins/preview",
    response=schemas.PreviewShape,
    operation_id="preview_handin",
    openapi_extra=_action(Action.SET_HANDIN),
)
def preview_handin(request: HttpRequest, group_id: int, body: schemas.PlanIn) -> Any:
    """Who would get a hand-in and when."""
    return setting.preview(person_of(request), group_id, _plan(body), now())


@router.post(
    "/groups/{group_id}/handins",
    response={201: Named},
    operation_id="set_handin",
    openapi_extra=_action(Action.SET_HANDIN),
)
def set_handin(request: HttpRequest, group_id: int, body: schemas.PlanIn) -> Any:
    """Set a hand-in."""
    made = setting.set_handin(person_of(request), group_id, _plan(body), now())
    return Status(201, {"id": made.pk, "title": made.title})


@router.get(
    "/portfolios/{portfolio_id}",
    response=schemas.PortfolioShape,
    operation_id="see_portfolio",
    openapi_extra=_action(Action.SEE_PORTFOLIO),
)
def see_portfolio(request: HttpRequest, portfolio_id: int) -> Any:
    """A portfolio's pockets with their coats."""
    return worklists.my_pockets(person_of(request), portfolio_id, now())


@router.get(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}",
    response=schemas.OpenedPocket,
    operation_id="see_pocket",
    openapi_extra=_action(Action.SEE_PORTFOLIO),
)
def see_pocket(request: HttpRequest, portfolio_id: int, pocket_id: int) -> Any:
    """One pocket, opened."""
    return worklists.opened_pocket(person_of(request), portfolio_id, pocket_id, now())


@router.get(
    "/portfolios/{portfolio_id}/worklist",
    response=schemas.Worklist,
    operation_id="see_worklist",
    openapi_extra=_action(Action.SEE_WORKLIST),
)
def see_worklist(request: HttpRequest, portfolio_id: int) -> Any:
    """What a student has to hand in."""
    return worklists.to_hand_in(person_of(request), portfolio_id, now())


@router.get(
    "/portfolios/{portfolio_id}/news",
    response=looking_shapes.NewsShape,
    operation_id="see_news",
    openapi_extra=_action(Action.SEE_WORKLIST),
)
def see_news(request: HttpRequest, portfolio_id: int) -> Any:
    """What is new to a student."""
    return news.news(person_of(request), portfolio_id, now())


@router.post(
    "/portfolios/{portfolio_id}/news/seen",
    response={204: None},
    operation_id="news_seen",
    openapi_extra=_action(Action.SEE_WORKLIST),
)
def news_seen(request: HttpRequest, portfolio_id: int, body: looking_shapes.NewsSeenIn) -> Any:
    """The student has seen their news up to a number."""
    news.seen(person_of(request), portfolio_id, body.number)
    return Status(204, None)


@router.get(
    "/groups/{group_id}/portfolios",
    response=list[looking_shapes.PortfolioLine],
    operation_id="see_portfolios",
    openapi_extra=_action(Action.SEE_BOARD),
)
def see_portfolios(request: HttpRequest, group_id: int) -> Any:
    """The portfolios of a class by name, with the last work in each."""
    return looking.portfolios(person_of(request), group_id, now())


@router.get(
    "/groups/{group_id}/pockets/{pocket_id}",
    response=looking_shapes.PocketGrid,
    operation_id="see_pocket_of_class",
    openapi_extra=_action(Action.SEE_BOARD),
)
def see_pocket_of_class(request: HttpRequest, group_id: int, pocket_id: int) -> Any:
    """One pocket over the class."""
    return looking.pocket_of_class(person_of(request), group_id, pocket_id, now())


@router.post(
    "/portfolios/{portfolio_id}/handins/{handin_id}/submissions",
    response={201: schemas.SubmissionLine},
    operation_id="hand_in",
    openapi_extra=_action(Action.HAND_IN),
)
def hand_in(request: HttpRequest, portfolio_id: int, handin_id: int, body: schemas.HandInPress) -> Any:
    """Hand in: freeze, receipt, lock."""
    made = commands.hand_in(
        person_of(request), portfolio_id, handin_id, body.seen, now(), even_if_empty=body.even_if_empty
    )
    return Status(201, next(one for one in board.submissions_of(handin_id, made.enrolment_id) if one["id"] == made.pk))


@router.post(
    "/submissions/{submission_id}/take-back",
    response={204: None},
    operation_id="take_back",
    openapi_extra=_action(Action.HAND_IN),
)
def take_back(request: HttpRequest, submission_id: int) -> Any:
    """Take the newest submission back before it is marked."""
    commands.take_back(person_of(request), submission_id, now())
    return Status(204, None)


@router.get(
    "/groups/{group_id}/caseload",
    response=schemas.CaseloadShape,
    operation_id="see_caseload",
    openapi_extra=_action(Action.SEE_CASELOAD),
)
def see_caseload(request: HttpRequest, group_id: int) -> Any:
    """The students of a caseload with how they stand in their classes."""
    return caseloads.overview(person_of(request), group_id, now())
