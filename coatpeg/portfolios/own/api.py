"""A student's cover and loose pages."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import File, Status
from ninja.files import UploadedFile
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.looking import comments
from coatpeg.portfolios.models import LoosePage
from coatpeg.portfolios.own import cover, pages
from coatpeg.portfolios.router import router
from coatpeg.portfolios.shapes import ArtefactShape, CommentShape, CoverShape

ARRANGE = for_action(Action.ARRANGE_PORTFOLIO)
LOOK = for_action(Action.SEE_PORTFOLIO)


class CoverIn(Shape):
    """A cover: a title, one of the eight tints (none: the peg's), a picture of one's own by its id."""

    title: str = ""
    tint: int | None = None
    picture: int | None = None


class PageTitleIn(Shape):
    """The title of a new loose page."""

    title: str


class PageIn(PageTitleIn):
    """A loose page and the version its writer saw."""

    text: str = ""
    version: int = Field(ge=0)
    html: str | None = None
    base: str | None = None


class PageMoveIn(Shape):
    """The page to stand before; none is the end."""

    before: int | None = None


class PageShape(Shape):
    """A loose page."""

    id: int
    title: str
    text: str
    html: str
    words: int
    version: int
    together: bool = False
    """The student fills it with classmates."""
    merged: bool = False
    comments: list[CommentShape] = Field(default_factory=list)


def _page(page: LoosePage, *, seen: int | None = None) -> PageShape:
    return PageShape(
        id=page.pk,
        title=page.title,
        text=page.text,
        html=page.html,
        words=page.words,
        version=page.version,
        together=page.together is not None,
        merged=seen is not None and page.version > seen + 1,
    )


@router.put("/portfolios/{portfolio_id}/cover", response=CoverShape, operation_id="set_cover", openapi_extra=ARRANGE)
def set_cover(request: HttpRequest, portfolio_id: int, body: CoverIn) -> Any:
    """Give a portfolio a cover."""
    return cover.cover_data(
        cover.set_cover(person_of(request), portfolio_id, body.title, body.tint, body.picture, now())
    )


@router.post(
    "/portfolios/{portfolio_id}/cover/picture",
    response=ArtefactShape,
    operation_id="add_cover_picture",
    openapi_extra=ARRANGE,
)
def add_cover_picture(request: HttpRequest, portfolio_id: int, file: File[UploadedFile]) -> Any:
    """Take in a picture for a cover."""
    return artefact_data(cover.keep_cover_picture(person_of(request), portfolio_id, file, file.name or "", now()))


@router.post(
    "/portfolios/{portfolio_id}/pages", response={201: PageShape}, operation_id="add_page", openapi_extra=ARRANGE
)
def add_page(request: HttpRequest, portfolio_id: int, body: PageTitleIn) -> Any:
    """Add a loose page."""
    return Status(201, _page(pages.add_page(person_of(request), portfolio_id, body.title, now())))


@router.get("/pages/{page_id}", response=PageShape, operation_id="see_page", openapi_extra=LOOK)
def see_page(request: HttpRequest, page_id: int) -> Any:
    """A loose page."""
    person = person_of(request)
    page = pages.readable_page(person, page_id)
    found = _page(page)
    found.comments = [CommentShape(**one) for one in comments.comment_data(comments.of_page(page), person)]
    return found


@router.put("/pages/{page_id}", response=PageShape, operation_id="write_loose_page", openapi_extra=ARRANGE)
def write_loose_page(request: HttpRequest, page_id: int, body: PageIn) -> Any:
    """Save a loose page."""
    of = (person_of(request), page_id, body.title, body.text, body.version, now())
    return _page(pages.write_page(*of, html=body.html, base=body.base), seen=body.version)


@router.delete("/pages/{page_id}", response=PageShape, operation_id="remove_page", openapi_extra=ARRANGE)
def remove_page(request: HttpRequest, page_id: int) -> Any:
    """Take a loose page out."""
    return _page(pages.set_removed(person_of(request), page_id, now(), removed=True))


@router.post("/pages/{page_id}/restore", response=PageShape, operation_id="restore_page", openapi_extra=ARRANGE)
def restore_page(request: HttpRequest, page_id: int) -> Any:
    """Bring a loose page back."""
    return _page(pages.set_removed(person_of(request), page_id, now(), removed=False))


@router.post("/pages/{page_id}/move", response={204: None}, operation_id="move_page", openapi_extra=ARRANGE)
def move_page(request: HttpRequest, page_id: int, body: PageMoveIn) -> Any:
    """Put a loose page elsewhere among the others."""
    pages.move_page(person_of(request), page_id, body.before, now())
    return Status(204, None)
