"""Where artefacts lie: the list of them, one more pocket, their order, what was taken out."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Status
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Named, Shape
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.evidence import arrangement, starters
from coatpeg.portfolios.evidence.api import saved
from coatpeg.portfolios.router import router
from coatpeg.portfolios.shapes import ArtefactShape, SavedShape

FILL = for_action(Action.FILL_POCKET)
LOOK = for_action(Action.SEE_PORTFOLIO)
ARRANGE = for_action(Action.ARRANGE_PORTFOLIO)


class ArtefactTitleIn(Shape):
    """A title."""

    title: str = Field(default="", max_length=2_000)


class LyingPocket(Named):
    """A pocket, and the evidence that an artefact is in it."""

    evidence: int


class LyingShape(Shape):
    """An artefact with the pockets it lies in."""

    artefact: ArtefactShape
    pockets: list[LyingPocket]


class AgainIn(Shape):
    """An artefact of the same portfolio."""

    artefact: int


class EvidenceMoveIn(Shape):
    """The evidence to stand before; none is the end."""

    before: int | None = None


class TakenOutShape(Shape):
    """Something that was taken out and can be brought back, by its ``id`` among its kind."""

    what: Literal["artefact", "row", "page"]
    id: int
    title: str
    pocket: str
    at: datetime


@router.put("/artefacts/{artefact_id}/title", response=ArtefactShape, operation_id="rename", openapi_extra=ARRANGE)
def rename(request: HttpRequest, artefact_id: int, body: ArtefactTitleIn) -> Any:
    """Give an artefact another title."""
    return artefact_data(arrangement.rename(person_of(request), artefact_id, body.title, now()))


@router.get(
    "/portfolios/{portfolio_id}/artefacts", response=list[LyingShape], operation_id="see_artefacts", openapi_extra=LOOK
)
def see_artefacts(request: HttpRequest, portfolio_id: int) -> Any:
    """Every artefact of a portfolio with the pockets it lies in."""
    return arrangement.lying_in(person_of(request), portfolio_id)


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/artefacts",
    response=SavedShape,
    operation_id="put_again",
    openapi_extra=FILL,
)
def put_again(request: HttpRequest, portfolio_id: int, pocket_id: int, body: AgainIn) -> SavedShape:
    """Put an artefact of the portfolio into another pocket."""
    return saved(arrangement.put_again(person_of(request), portfolio_id, pocket_id, body.artefact, now()))


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/starters",
    response={204: None},
    operation_id="copy_starters",
    openapi_extra=FILL,
)
def copy_starters(request: HttpRequest, portfolio_id: int, pocket_id: int) -> Any:
    """Give the student their own copies of a pocket's starter files."""
    starters.copy(person_of(request), portfolio_id, pocket_id, now())
    return Status(204, None)


@router.post("/evidence/{evidence_id}/move", response={204: None}, operation_id="move_evidence", openapi_extra=FILL)
def move_evidence(request: HttpRequest, evidence_id: int, body: EvidenceMoveIn) -> Any:
    """Put an artefact before another one in its pocket."""
    arrangement.move(person_of(request), evidence_id, body.before, now())
    return Status(204, None)


@router.get(
    "/portfolios/{portfolio_id}/taken-out",
    response=list[TakenOutShape],
    operation_id="see_taken_out",
    openapi_extra=FILL,
)
def see_taken_out(request: HttpRequest, portfolio_id: int) -> Any:
    """What was taken out in the last thirty days."""
    return arrangement.taken_out(person_of(request), portfolio_id, now())
