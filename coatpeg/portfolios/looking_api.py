"""Staff look in: comments, looks, show pages."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.people.calendars import school_calendar
from coatpeg.people.requests import now, person_of
from coatpeg.people.schemas import Shape
from coatpeg.portfolios import comments, looks, serving, show
from coatpeg.portfolios.models import Artefact, Comment, Portfolio
from coatpeg.portfolios.schemas import ArtefactShape, CommentShape

router = Router(tags=["portfolios"])
LOOK = {"x-action": Action.SEE_PORTFOLIO.name}
COMMENT = {"x-action": Action.COMMENT.name}
ARRANGE = {"x-action": Action.ARRANGE_PORTFOLIO.name}
SHOWS = {"x-action": Action.SEE_SHOW_PAGES.name}
OPEN = {"x-action": Action.OPEN_SHOW_PAGE.name}


class CommentIn(Shape):
    """A comment on one of an evidence, a loose page, or (neither named) a pocket."""

    text: str = Field(max_length=50_000)
    pocket: int | None = None
    evidence: int | None = None
    page: int | None = None


class LookShape(Shape):
    """Since when things are new to whoever looks (none: they never looked before)."""

    since: datetime | None


class ChoiceIn(Shape):
    """An artefact for the show page, by its evidence."""

    evidence: int
    caption: str = Field(default="", max_length=2_000)
    wide: bool = False


class ShowIn(Shape):
    """A show page as it is to be, and the version its student saw."""

    title: str = Field(default="", max_length=2_000)
    shown: list[ChoiceIn] = Field(max_length=100)
    version: int = Field(ge=0)


class OpenedIn(Shape):
    """Open a show page to the class, as it was seen, or close it."""

    opened: bool
    version: int = Field(ge=0)


class ShownShape(Shape):
    """An artefact on a show page."""

    id: int
    evidence: int
    caption: str
    wide: bool
    artefact: ArtefactShape


class ShowShape(Shape):
    """A show page; ``name`` is the given name and the last initial."""

    portfolio: int
    name: str
    picture: str
    tint: int
    title: str
    version: int
    opened_at: datetime | None
    shown: list[ShownShape]


@router.post(
    "/portfolios/{portfolio_id}/comments", response=CommentShape, operation_id="comment", openapi_extra=COMMENT
)
def comment(request: HttpRequest, portfolio_id: int, body: CommentIn) -> Any:
    """Leave a comment."""
    about = {"pocket": body.pocket, "evidence": body.evidence, "page": body.page}
    return _comment(request, comments.leave(person_of(request), portfolio_id, body.text, now(), **about))


@router.delete("/comments/{comment_id}", response=CommentShape, operation_id="remove_comment", openapi_extra=COMMENT)
def remove_comment(request: HttpRequest, comment_id: int) -> Any:
    """Take one's own comment back."""
    return _comment(request, comments.set_removed(person_of(request), comment_id, now(), removed=True))


@router.post(
    "/comments/{comment_id}/restore", response=CommentShape, operation_id="restore_comment", openapi_extra=COMMENT
)
def restore_comment(request: HttpRequest, comment_id: int) -> Any:
    """Let it stand again."""
    return _comment(request, comments.set_removed(person_of(request), comment_id, now(), removed=False))


def _comment(request: HttpRequest, made: Comment) -> Any:
    return comments.comment_data([made], person_of(request))[0]


@router.post("/portfolios/{portfolio_id}/look", response=LookShape, operation_id="look", openapi_extra=LOOK)
def look(request: HttpRequest, portfolio_id: int) -> LookShape:
    """Remember that this member of staff looks into a portfolio."""
    portfolio = Portfolio.objects.filter(pk=portfolio_id).select_related("enrolment").first()
    if portfolio is None:
        raise Gone("There is no such portfolio.", fix="Go back.")
    return LookShape(since=looks.look(person_of(request), portfolio, now()))


@router.get("/portfolios/{portfolio_id}/show", response=ShowShape, operation_id="see_show_page", openapi_extra=LOOK)
def see_show_page(request: HttpRequest, portfolio_id: int) -> Any:
    """A student's show page."""
    return show.page_of(person_of(request), portfolio_id)


@router.put(
    "/portfolios/{portfolio_id}/show", response=ShowShape, operation_id="arrange_show_page", openapi_extra=ARRANGE
)
def arrange_show_page(request: HttpRequest, portfolio_id: int, body: ShowIn) -> Any:
    """Arrange one's show page; it is closed again where it had been opened."""
    person = person_of(request)
    chosen = [show.Choice(one.evidence, one.caption, one.wide) for one in body.shown]
    show.arrange(person, portfolio_id, body.title, chosen, body.version, now())
    return show.page_of(person, portfolio_id)


@router.put(
    "/portfolios/{portfolio_id}/show/opened", response=ShowShape, operation_id="open_show_page", openapi_extra=OPEN
)
def open_show_page(request: HttpRequest, portfolio_id: int, body: OpenedIn) -> Any:
    """Open a show page to the class, or close it."""
    person = person_of(request)
    show.set_opened(person, portfolio_id, body.version, now(), opened=body.opened)
    return show.page_of(person, portfolio_id)


@router.get("/groups/{group_id}/shows", response=list[ShowShape], operation_id="see_show_pages", openapi_extra=SHOWS)
def see_show_pages(request: HttpRequest, group_id: int) -> Any:
    """The show pages that are open to the class."""
    moment = now()
    return show.of_class(person_of(request), group_id, school_calendar().local_day(moment))


@router.get("/shown/{shown_id}/file", response=bytes, operation_id="read_shown", openapi_extra=SHOWS)
def read_shown(request: HttpRequest, shown_id: int) -> HttpResponse:
    """The bytes of an artefact on a show page."""
    artefact = show.shown_artefact(person_of(request), shown_id)
    if artefact.stored is None:
        raise Gone("There is no file to this.", fix="It is a text or a link.")
    shown = artefact.kind in (Artefact.Kind.PICTURE, Artefact.Kind.SOUND, Artefact.Kind.VIDEO)
    return serving.whole(request, artefact.stored.sha256, artefact.title, artefact.stored.media_type, shown=shown)


@router.get(
    "/shown/{shown_id}/thumbnails/{size}", response=bytes, operation_id="read_shown_thumbnail", openapi_extra=SHOWS
)
def read_shown_thumbnail(request: HttpRequest, shown_id: int, size: Literal["small", "large"]) -> HttpResponse:
    """A thumbnail of a picture on a show page."""
    artefact = show.shown_artefact(person_of(request), shown_id)
    if artefact.stored is None or artefact.kind not in (Artefact.Kind.PICTURE, Artefact.Kind.SCAN):
        raise Gone("Only pictures have thumbnails.", fix="Ask for the file.")
    kind = "image/jpeg" if artefact.kind == Artefact.Kind.SCAN else artefact.stored.media_type
    return serving.thumbnail(request, artefact.stored.sha256, artefact.title, kind, size)
