"""Show pages: arranging one, opening one to the class, reading those that are open."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from pydantic import Field

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import serving
from coatpeg.people.calendars import school_calendar
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape
from coatpeg.portfolios.own import show
from coatpeg.portfolios.router import router
from coatpeg.portfolios.shapes import ArtefactShape

LOOK = for_action(Action.SEE_PORTFOLIO)
COMMENT = for_action(Action.COMMENT)
ARRANGE = for_action(Action.ARRANGE_PORTFOLIO)
SHOWS = for_action(Action.SEE_SHOW_PAGES)
OPEN = for_action(Action.OPEN_SHOW_PAGE)


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
    shown = artefact.kind in (ArtefactKind.PICTURE, ArtefactKind.SOUND, ArtefactKind.VIDEO)
    return serving.whole(request, artefact.stored.sha256, artefact.title, artefact.stored.media_type, shown=shown)


@router.get(
    "/shown/{shown_id}/thumbnails/{size}", response=bytes, operation_id="read_shown_thumbnail", openapi_extra=SHOWS
)
def read_shown_thumbnail(request: HttpRequest, shown_id: int, size: Literal["small", "large"]) -> HttpResponse:
    """A thumbnail of a picture on a show page."""
    artefact = show.shown_artefact(person_of(request), shown_id)
    if artefact.stored is None or artefact.kind not in (ArtefactKind.PICTURE, ArtefactKind.SCAN):
        raise Gone("Only pictures have thumbnails.", fix="Ask for the file.")
    kind = "image/jpeg" if artefact.kind == ArtefactKind.SCAN else artefact.stored.media_type
    return serving.thumbnail(request, artefact.stored.sha256, artefact.title, kind, size)
