"""Pages that are filled together: opening, exchanging, leading."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from coatpeg.core.policy import Action
from coatpeg.people.requests import as_json, for_action, now, person_of
from coatpeg.portfolios.evidence.api import saved
from coatpeg.portfolios.shapes import SavedShape
from coatpeg.sharing import exchanging, leading, own, quoting, shapes
from coatpeg.sharing.models import SharedPage

router = Router(tags=["sharing"])
SEE = for_action(Action.SEE_SHARED)
LEAD = for_action(Action.LEAD_SHARED)
FILL = for_action(Action.FILL_POCKET)
ARRANGE = for_action(Action.ARRANGE_PORTFOLIO)


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
    "/portfolios/{portfolio_id}/pages/{page_id}/shared",
    response=shapes.OpenedSharedPage,
    operation_id="open_own_shared_page",
    openapi_extra=SEE,
)
def open_own_shared_page(request: HttpRequest, portfolio_id: int, page_id: int) -> HttpResponse:
    """A page among a student's own that they fill with classmates."""
    return as_json(own.open_page(person_of(request), portfolio_id, page_id, now()))


@router.get(
    "/portfolios/{portfolio_id}/classmates",
    response=list[shapes.ClassmateShape],
    operation_id="see_classmates",
    openapi_extra=ARRANGE,
)
def see_classmates(request: HttpRequest, portfolio_id: int) -> Any:
    """With whom a student may begin a page."""
    return own.classmates(person_of(request), portfolio_id, now())


@router.post(
    "/portfolios/{portfolio_id}/pages/together",
    response={201: shapes.BegunPage},
    operation_id="begin_page_together",
    openapi_extra=ARRANGE,
)
def begin_page_together(request: HttpRequest, portfolio_id: int, body: shapes.BeginPageIn) -> Any:
    """Begin a page with classmates."""
    return Status(201, own.begin(person_of(request), portfolio_id, body.title, body.others, now()))


@router.put(
    "/groups/{group_id}/pages-together",
    response={204: None},
    operation_id="allow_pages_together",
    openapi_extra=for_action(Action.KEEP_ROSTER),
)
def allow_pages_together(request: HttpRequest, group_id: int, body: shapes.AllowedIn) -> Any:
    """Say whether students of a class may begin pages with classmates."""
    own.allow(person_of(request), group_id, now(), allowed=body.allowed)
    return Status(204, None)


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


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/passages",
    response={201: SavedShape},
    operation_id="put_passage_in",
    openapi_extra=FILL,
)
def put_passage_in(request: HttpRequest, portfolio_id: int, pocket_id: int, body: shapes.OwnPassageIn) -> Any:
    """Put a passage of a page into a pocket of one's own, as evidence with its authors."""
    person = person_of(request)
    made = quoting.quote(person, portfolio_id, pocket_id, body.shared, body.place, body.words, now())
    return Status(201, saved(made))


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
