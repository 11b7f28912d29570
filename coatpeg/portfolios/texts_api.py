"""Texts that are artefacts, their history and that of every other text; artefacts in more than one pocket.

What was taken out.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.people.requests import now, person_of
from coatpeg.people.schemas import Named, Shape
from coatpeg.portfolios import starters, texts, written
from coatpeg.portfolios.api import saved
from coatpeg.portfolios.contents import artefact_data
from coatpeg.portfolios.models import Evidence, LoosePage
from coatpeg.portfolios.schemas import ArtefactShape, SavedShape, TextIn

router = Router(tags=["portfolios"])
FILL = {"x-action": Action.FILL_POCKET.name}
LOOK = {"x-action": Action.SEE_PORTFOLIO.name}
ARRANGE = {"x-action": Action.ARRANGE_PORTFOLIO.name}


class RevisionLine(Shape):
    """A revision in a text's history: who wrote it, in which sitting, how many words it had."""

    id: int
    version: int
    who: str
    mine: bool
    begun_at: datetime
    saved_at: datetime
    words: int


class RevisionPart(Shape):
    """A part of a comparison."""

    what: Literal["same", "gone", "new"]
    text: str


class RevisionShape(RevisionLine):
    """A revision's text; ``parts`` say what changed from the one it is compared with."""

    text: str
    html: str
    parts: list[RevisionPart]


class BringBackIn(Shape):
    """The version of the text as it stands, as it was seen."""

    version: int = Field(ge=0)


class TextVersion(Shape):
    """The version of a text after a save."""

    version: int


class ArtefactTitleIn(Shape):
    """A title."""

    title: str = Field(default="", max_length=2_000)


class TextArtefactShape(SavedShape):
    """A text that is an artefact, with the artefact's title."""

    title: str


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


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/texts",
    response=SavedShape,
    operation_id="add_text",
    openapi_extra=FILL,
)
def add_text(request: HttpRequest, portfolio_id: int, pocket_id: int, body: ArtefactTitleIn) -> SavedShape:
    """A text to be written right there, in a pocket."""
    return saved(written.add_text(person_of(request), portfolio_id, pocket_id, body.title, now()))


@router.get("/texts/{artefact_id}", response=TextArtefactShape, operation_id="see_text", openapi_extra=LOOK)
def see_text(request: HttpRequest, artefact_id: int) -> TextArtefactShape:
    """A text that is an artefact."""
    found = texts.written_of(artefact_id)
    texts.revisions_of(person_of(request), found, found.artefact.portfolio)
    return TextArtefactShape(**saved(found).model_dump(), title=found.artefact.title)


@router.put("/texts/{artefact_id}", response=SavedShape, operation_id="write_text", openapi_extra=FILL)
def write_text(request: HttpRequest, artefact_id: int, body: TextIn) -> SavedShape:
    """Save a text that is an artefact."""
    draft = texts.Draft(body.text, body.version, body.html, body.base)
    return saved(written.write(person_of(request), artefact_id, draft, now()), seen=body.version)


@router.put("/artefacts/{artefact_id}/title", response=ArtefactShape, operation_id="rename", openapi_extra=ARRANGE)
def rename(request: HttpRequest, artefact_id: int, body: ArtefactTitleIn) -> Any:
    """Give an artefact another title."""
    return artefact_data(written.rename(person_of(request), artefact_id, body.title, now()))


@router.get(
    "/portfolios/{portfolio_id}/artefacts", response=list[LyingShape], operation_id="see_artefacts", openapi_extra=LOOK
)
def see_artefacts(request: HttpRequest, portfolio_id: int) -> Any:
    """Every artefact of a portfolio with the pockets it lies in."""
    return written.lying_in(person_of(request), portfolio_id)


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/artefacts",
    response=SavedShape,
    operation_id="put_again",
    openapi_extra=FILL,
)
def put_again(request: HttpRequest, portfolio_id: int, pocket_id: int, body: AgainIn) -> SavedShape:
    """Put an artefact of the portfolio into another pocket."""
    return saved(written.put_again(person_of(request), portfolio_id, pocket_id, body.artefact, now()))


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
    written.move(person_of(request), evidence_id, body.before, now())
    return Status(204, None)


@router.get(
    "/portfolios/{portfolio_id}/taken-out",
    response=list[TakenOutShape],
    operation_id="see_taken_out",
    openapi_extra=FILL,
)
def see_taken_out(request: HttpRequest, portfolio_id: int) -> Any:
    """What was taken out in the last thirty days."""
    return written.taken_out(person_of(request), portfolio_id, now())


@router.get(
    "/evidence/{evidence_id}/history", response=list[RevisionLine], operation_id="see_history", openapi_extra=LOOK
)
def see_history(request: HttpRequest, evidence_id: int) -> Any:
    """The history of a reflection, or of a page in a pocket."""
    found = Evidence.objects.filter(pk=evidence_id).select_related("portfolio__enrolment").first()
    if found is None:
        raise Gone("There is no such text.", fix="Go back to your pockets.")
    return texts.revisions_of(person_of(request), found, found.portfolio)


@router.get(
    "/pages/{page_id}/history", response=list[RevisionLine], operation_id="see_page_history", openapi_extra=LOOK
)
def see_page_history(request: HttpRequest, page_id: int) -> Any:
    """The history of a loose page."""
    found = LoosePage.objects.filter(pk=page_id).select_related("portfolio__enrolment").first()
    if found is None:
        raise Gone("There is no such page.", fix="Go back to your pockets.")
    return texts.revisions_of(person_of(request), found, found.portfolio)


@router.get(
    "/texts/{artefact_id}/history", response=list[RevisionLine], operation_id="see_text_history", openapi_extra=LOOK
)
def see_text_history(request: HttpRequest, artefact_id: int) -> Any:
    """The history of a text that is an artefact."""
    found = texts.written_of(artefact_id)
    return texts.revisions_of(person_of(request), found, found.artefact.portfolio)


@router.get("/revisions/{revision_id}", response=RevisionShape, operation_id="see_revision", openapi_extra=LOOK)
def see_revision(request: HttpRequest, revision_id: int, since: int | None = None) -> Any:
    """A revision's text, and what changed in it since another one of the same text."""
    return texts.compared(person_of(request), revision_id, since)


@router.post("/revisions/{revision_id}/bring-back", response=TextVersion, operation_id="bring_back", openapi_extra=FILL)
def bring_back(request: HttpRequest, revision_id: int, body: BringBackIn) -> TextVersion:
    """Write an earlier revision over the text as it stands."""
    return TextVersion(version=written.bring_back(person_of(request), revision_id, body.version, now()))
