"""Pages that are filled together: opening, exchanging, leading."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from coatpeg.core.policy import Action
from coatpeg.people.requests import as_json, for_action, now, person_of
from coatpeg.sharing import exchanging, leading, shapes
from coatpeg.sharing.models import SharedPage

router = Router(tags=["sharing"])
SEE = for_action(Action.SEE_SHARED)
LEAD = for_action(Action.LEAD_SHARED)


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/shared",
    response=shapes.OpenedSharedPage,
    operation_id="open_shared_page",
    openapi_extra=SEE,
)
def open_shared_page(request: HttpRequest, portfolio_id: int, pocket_id: int) -> HttpResponse:
    """The page of a pocket that a student fills with others."""
    return as_json(exchanging.open_page(person_of(request), portfolio_id, pocket_id, now()))


@router.post(
    "/shared/{shared_id}/exchange",
    response=shapes.ExchangedShape,
    operation_id="exchange_shared_page",
    openapi_extra=SEE,
)
def exchange_shared_page(request: HttpRequest, shared_id: int, body: shapes.ExchangeIn) -> HttpResponse:
    """Send what was written and get what others wrote."""
    found = exchanging.exchange(person_of(request), shared_id, body.after, body.client, body.update, now())
    return as_json(found)


@router.get(
    "/shared/{shared_id}/written", response=shapes.WrittenShape, operation_id="who_wrote_what", openapi_extra=SEE
)
def who_wrote_what(request: HttpRequest, shared_id: int) -> HttpResponse:
    """Who wrote how much of a page, and when."""
    return as_json(exchanging.see_page(person_of(request), shared_id, now()))


@router.put(
    "/shared/{shared_id}/question", response=shapes.LedShape, operation_id="ask_on_shared_page", openapi_extra=LEAD
)
def ask_on_shared_page(request: HttpRequest, shared_id: int, body: shapes.QuestionIn) -> Any:
    """Put a question on top of a page, or take it away."""
    return _led(leading.ask(person_of(request), shared_id, body.question, now()))


@router.put("/shared/{shared_id}/open", response=shapes.LedShape, operation_id="open_for_all", openapi_extra=LEAD)
def open_for_all(request: HttpRequest, shared_id: int) -> Any:
    """Open a page again."""
    return _led(leading.set_open(person_of(request), shared_id, now(), is_open=True))


@router.delete("/shared/{shared_id}/open", response=shapes.LedShape, operation_id="close_for_all", openapi_extra=LEAD)
def close_for_all(request: HttpRequest, shared_id: int) -> Any:
    """Close a page: it is read and not written on."""
    return _led(leading.set_open(person_of(request), shared_id, now(), is_open=False))


@router.post(
    "/shared/{shared_id}/taken", response={201: shapes.TakenShape}, operation_id="take_passage", openapi_extra=LEAD
)
def take_passage(request: HttpRequest, shared_id: int, body: shapes.PassageIn) -> Any:
    """Take a passage off a page; it is kept."""
    person = person_of(request)
    made = leading.take_passage(person, shared_id, body.place, body.words, now())
    return Status(201, {"id": made.pk, "at": made.at, "by": person.full_name, "text": made.text})


@router.post(
    "/passages/{passage_id}/restore", response=shapes.LedShape, operation_id="put_passage_back", openapi_extra=LEAD
)
def put_passage_back(request: HttpRequest, passage_id: int) -> Any:
    """Put a passage back that was taken off a page."""
    return _led(leading.put_passage_back(person_of(request), passage_id, now()))


@router.get("/shared/{shared_id}/moments", response=shapes.MomentsShape, operation_id="see_moments", openapi_extra=SEE)
def see_moments(request: HttpRequest, shared_id: int) -> Any:
    """The moments that are kept of a page."""
    return leading.moments(person_of(request), shared_id, now())


@router.get("/moments/{moment_id}", response=shapes.MomentShape, operation_id="see_moment", openapi_extra=SEE)
def see_moment(request: HttpRequest, moment_id: int) -> Any:
    """How a page stood at a moment."""
    return leading.see_moment(person_of(request), moment_id, now())


@router.post(
    "/moments/{moment_id}/restore", response=shapes.LedShape, operation_id="bring_moment_back", openapi_extra=LEAD
)
def bring_moment_back(request: HttpRequest, moment_id: int) -> Any:
    """Bring a page back to how it stood at a moment."""
    return _led(leading.bring_back(person_of(request), moment_id, now()))


def _led(page: SharedPage) -> dict[str, Any]:
    return {"question": page.question, "question_at": page.asked_at, "is_open": page.closed_at is None}
