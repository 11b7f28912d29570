"""A student's portfolio, what to hand in; hand-ins as a calendar to subscribe to."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Status

from coatpeg.core.policy import Action
from coatpeg.handins.handing import who_did_what
from coatpeg.handins.router import router
from coatpeg.handins.student import feeds, pockets, shapes, to_hand_in
from coatpeg.people.access import require_account
from coatpeg.people.requests import as_json, for_action, now, person_of

CHANGE = for_action(Action.CHANGE_ACCOUNT)


@router.get(
    "/portfolios/{portfolio_id}",
    response=shapes.PortfolioShape,
    operation_id="see_portfolio",
    openapi_extra=for_action(Action.SEE_PORTFOLIO),
)
def see_portfolio(request: HttpRequest, portfolio_id: int) -> HttpResponse:
    """A portfolio's pockets with their coats."""
    return as_json(pockets.my_pockets(person_of(request), portfolio_id, now()))


@router.get(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}",
    response=shapes.OpenedPocket,
    operation_id="see_pocket",
    openapi_extra=for_action(Action.SEE_PORTFOLIO),
)
def see_pocket(request: HttpRequest, portfolio_id: int, pocket_id: int) -> Any:
    """One pocket, opened."""
    return pockets.opened_pocket(person_of(request), portfolio_id, pocket_id, now())


@router.get(
    "/portfolios/{portfolio_id}/worklist",
    response=shapes.Worklist,
    operation_id="see_worklist",
    openapi_extra=for_action(Action.SEE_WORKLIST),
)
def see_worklist(request: HttpRequest, portfolio_id: int) -> Any:
    """What a student has to hand in."""
    return to_hand_in.to_hand_in(person_of(request), portfolio_id, now())


PARTS = "/portfolios/{portfolio_id}/handins/{handin_id}/parts"


@router.get(
    PARTS, response=shapes.PartsShape, operation_id="who_did_what", openapi_extra=for_action(Action.SEE_WORKLIST)
)
def see_parts(request: HttpRequest, portfolio_id: int, handin_id: int) -> Any:
    """What each of those says who hand it in together."""
    return who_did_what.shown(person_of(request), portfolio_id, handin_id, now())


@router.put(PARTS, response=shapes.PartsShape, operation_id="say_own_part", openapi_extra=for_action(Action.HAND_IN))
def say_own_part(request: HttpRequest, portfolio_id: int, handin_id: int, body: shapes.PartIn) -> Any:
    """Say what one's own part was."""
    person, at = person_of(request), now()
    who_did_what.write(person, portfolio_id, handin_id, body.text, body.version, at)
    return who_did_what.shown(person, portfolio_id, handin_id, at)


@router.post(
    PARTS + "/confirm",
    response=shapes.PartsShape,
    operation_id="confirm_parts",
    openapi_extra=for_action(Action.HAND_IN),
)
def confirm_parts(request: HttpRequest, portfolio_id: int, handin_id: int, body: shapes.ConfirmPartsIn) -> Any:
    """Say that what all of them say is right."""
    person, at = person_of(request), now()
    who_did_what.confirm(person, portfolio_id, handin_id, body.seal, at)
    return who_did_what.shown(person, portfolio_id, handin_id, at)


@router.get("/feed", response=shapes.FeedShape, operation_id="see_feed", openapi_extra=CHANGE)
def see_feed(request: HttpRequest) -> Any:
    """Whether this person has a calendar address."""
    person = person_of(request)
    require_account(person, Action.CHANGE_ACCOUNT)
    return {"address": None, "since": feeds.made_at(person)}


@router.post("/feed", response=shapes.FeedShape, operation_id="make_feed", openapi_extra=CHANGE)
def make_feed(request: HttpRequest) -> Any:
    """Make a new calendar address; an older one no longer works."""
    moment, person = now(), person_of(request)
    require_account(person, Action.CHANGE_ACCOUNT)
    secret = feeds.new_address(person, moment)
    return {"address": request.build_absolute_uri(f"/calendar/{secret}.ics"), "since": moment}


@router.delete("/feed", response={204: None}, operation_id="revoke_feed", openapi_extra=CHANGE)
def revoke_feed(request: HttpRequest) -> Any:
    """Make the calendar address void."""
    person = person_of(request)
    require_account(person, Action.CHANGE_ACCOUNT)
    feeds.revoke(person, now())
    return Status(204, None)
