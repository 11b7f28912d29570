"""Texts that are artefacts, and the history of every text."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest
from pydantic import Field

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape
from coatpeg.portfolios.evidence import text_artefacts
from coatpeg.portfolios.evidence.api import saved
from coatpeg.portfolios.evidence.arrangement_api import ArtefactTitleIn
from coatpeg.portfolios.models import Evidence, LoosePage
from coatpeg.portfolios.router import router
from coatpeg.portfolios.shapes import SavedShape, TextIn
from coatpeg.portfolios.texts import saving

FILL = for_action(Action.FILL_POCKET)
LOOK = for_action(Action.SEE_PORTFOLIO)
ARRANGE = for_action(Action.ARRANGE_PORTFOLIO)


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


class TextArtefactShape(SavedShape):
    """A text that is an artefact, with the artefact's title."""

    title: str


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/texts",
    response=SavedShape,
    operation_id="add_text",
    openapi_extra=FILL,
)
def add_text(request: HttpRequest, portfolio_id: int, pocket_id: int, body: ArtefactTitleIn) -> SavedShape:
    """A text to be written right there, in a pocket."""
    return saved(text_artefacts.add_text(person_of(request), portfolio_id, pocket_id, body.title, now()))


@router.get("/texts/{artefact_id}", response=TextArtefactShape, operation_id="see_text", openapi_extra=LOOK)
def see_text(request: HttpRequest, artefact_id: int) -> TextArtefactShape:
    """A text that is an artefact."""
    found = saving.written_of(artefact_id)
    saving.revisions_of(person_of(request), found, found.artefact.portfolio)
    return TextArtefactShape(**saved(found).model_dump(), title=found.artefact.title)


@router.put("/texts/{artefact_id}", response=SavedShape, operation_id="write_text", openapi_extra=FILL)
def write_text(request: HttpRequest, artefact_id: int, body: TextIn) -> SavedShape:
    """Save a text that is an artefact."""
    draft = saving.Draft(body.text, body.version, body.html, body.base)
    return saved(text_artefacts.write(person_of(request), artefact_id, draft, now()), seen=body.version)


@router.get(
    "/evidence/{evidence_id}/history", response=list[RevisionLine], operation_id="see_history", openapi_extra=LOOK
)
def see_history(request: HttpRequest, evidence_id: int) -> Any:
    """The history of a reflection, or of a page in a pocket."""
    found = Evidence.objects.filter(pk=evidence_id).select_related("portfolio__enrolment").first()
    if found is None:
        raise Gone("There is no such text.", fix="Go back to your pockets.")
    return saving.revisions_of(person_of(request), found, found.portfolio)


@router.get(
    "/pages/{page_id}/history", response=list[RevisionLine], operation_id="see_page_history", openapi_extra=LOOK
)
def see_page_history(request: HttpRequest, page_id: int) -> Any:
    """The history of a loose page."""
    found = LoosePage.objects.filter(pk=page_id).select_related("portfolio__enrolment").first()
    if found is None:
        raise Gone("There is no such page.", fix="Go back to your pockets.")
    return saving.revisions_of(person_of(request), found, found.portfolio)


@router.get(
    "/texts/{artefact_id}/history", response=list[RevisionLine], operation_id="see_text_history", openapi_extra=LOOK
)
def see_text_history(request: HttpRequest, artefact_id: int) -> Any:
    """The history of a text that is an artefact."""
    found = saving.written_of(artefact_id)
    return saving.revisions_of(person_of(request), found, found.artefact.portfolio)


@router.get("/revisions/{revision_id}", response=RevisionShape, operation_id="see_revision", openapi_extra=LOOK)
def see_revision(request: HttpRequest, revision_id: int, since: int | None = None) -> Any:
    """A revision's text, and what changed in it since another one of the same text."""
    return saving.compared(person_of(request), revision_id, since)


@router.post("/revisions/{revision_id}/bring-back", response=TextVersion, operation_id="bring_back", openapi_extra=FILL)
def bring_back(request: HttpRequest, revision_id: int, body: BringBackIn) -> TextVersion:
    """Write an earlier revision over the text as it stands."""
    return TextVersion(version=text_artefacts.bring_back(person_of(request), revision_id, body.version, now()))
