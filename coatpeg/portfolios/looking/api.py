"""Staff look in: comments and looks."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.http import HttpRequest
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.looking import comments, looks
from coatpeg.portfolios.models import Comment
from coatpeg.portfolios.router import router
from coatpeg.portfolios.shapes import CommentShape

LOOK = for_action(Action.SEE_PORTFOLIO)
COMMENT = for_action(Action.COMMENT)
ARRANGE = for_action(Action.ARRANGE_PORTFOLIO)
SHOWS = for_action(Action.SEE_SHOW_PAGES)
OPEN = for_action(Action.OPEN_SHOW_PAGE)


class CommentIn(Shape):
    """A comment on one of an evidence, a loose page, or (neither named) a pocket."""

    text: str = Field(max_length=50_000)
    pocket: int | None = None
    evidence: int | None = None
    page: int | None = None


class LookShape(Shape):
    """Since when things are new to whoever looks (none: they never looked before)."""

    since: datetime | None


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
    person = person_of(request)
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    return LookShape(since=looks.look(person, portfolio, now()))
