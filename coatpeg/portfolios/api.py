"""Putting work into pockets, and reading the bytes of artefacts."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router
from ninja.files import UploadedFile

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.people.access import require_for_student
from coatpeg.people.requests import now, person_of
from coatpeg.portfolios import commands, pocket_files, serving
from coatpeg.portfolios.models import Artefact, Evidence
from coatpeg.portfolios.schemas import LinkIn, SavedShape, TextIn

router = Router(tags=["portfolios"])
FILL = {"x-action": Action.FILL_POCKET.name}
LOOK = {"x-action": Action.SEE_PORTFOLIO.name}
READ = {"x-action": Action.READ_DIRECTIONS.name}


def _saved(evidence: Evidence, note: str = "") -> SavedShape:
    return SavedShape(
        id=evidence.pk,
        text=evidence.text,
        version=evidence.version,
        words=evidence.words,
        sentences=evidence.sentences,
        note=note,
    )


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/files",
    response=SavedShape,
    operation_id="add_file",
    openapi_extra=FILL,
)
def add_file(
    request: HttpRequest, portfolio_id: int, pocket_id: int, file: File[UploadedFile], title: Form[str] = ""
) -> SavedShape:
    """Put a picture or file into a pocket. ``title`` is the file's own name, as the device has it."""
    evidence, note = commands.add_file(
        person_of(request), portfolio_id, pocket_id, file, title or file.name or "", now()
    )
    return _saved(evidence, note)


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/links",
    response=SavedShape,
    operation_id="add_link",
    openapi_extra=FILL,
)
def add_link(request: HttpRequest, portfolio_id: int, pocket_id: int, body: LinkIn) -> SavedShape:
    """Put a link into a pocket."""
    return _saved(commands.add_link(person_of(request), portfolio_id, pocket_id, body.link, body.title, now()))


@router.put(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/page",
    response=SavedShape,
    operation_id="write_page",
    openapi_extra=FILL,
)
def write_page(request: HttpRequest, portfolio_id: int, pocket_id: int, body: TextIn) -> SavedShape:
    """Save the text of a page."""
    return _saved(commands.write_page(person_of(request), portfolio_id, pocket_id, body.text, body.version, now()))


@router.put(
    "/evidence/{evidence_id}/reflection", response=SavedShape, operation_id="write_reflection", openapi_extra=FILL
)
def write_reflection(request: HttpRequest, evidence_id: int, body: TextIn) -> SavedShape:
    """Save the reflection on an artefact."""
    return _saved(commands.write_reflection(person_of(request), evidence_id, body.text, body.version, now()))


@router.delete("/evidence/{evidence_id}", response=SavedShape, operation_id="remove_evidence", openapi_extra=FILL)
def remove_evidence(request: HttpRequest, evidence_id: int) -> SavedShape:
    """Take an artefact out of its pocket."""
    return _saved(commands.remove_evidence(person_of(request), evidence_id, now()))


@router.post(
    "/evidence/{evidence_id}/restore", response=SavedShape, operation_id="restore_evidence", openapi_extra=FILL
)
def restore_evidence(request: HttpRequest, evidence_id: int) -> SavedShape:
    """Bring back what was taken out."""
    return _saved(commands.restore_evidence(person_of(request), evidence_id, now()))


@router.get("/artefacts/{artefact_id}/file", response=bytes, operation_id="read_file", openapi_extra=LOOK)
def read_file(request: HttpRequest, artefact_id: int) -> HttpResponse:
    """The bytes of an artefact: a picture to see, anything else to download."""
    artefact = _readable(request, artefact_id)
    stored, picture = artefact.stored, artefact.kind == Artefact.Kind.PICTURE
    assert stored is not None
    return serving.whole(request, stored.sha256, artefact.title, stored.media_type, picture=picture)


@router.get(
    "/artefacts/{artefact_id}/thumbnails/{size}", response=bytes, operation_id="read_thumbnail", openapi_extra=LOOK
)
def read_thumbnail(request: HttpRequest, artefact_id: int, size: Literal["small", "large"]) -> HttpResponse:
    """A thumbnail of a picture."""
    artefact = _readable(request, artefact_id)
    if artefact.kind != Artefact.Kind.PICTURE:
        raise Gone("Only pictures have thumbnails.", fix="Ask for the file.")
    stored = artefact.stored
    assert stored is not None
    return serving.thumbnail(request, stored.sha256, artefact.title, stored.media_type, size)


def _readable(request: HttpRequest, artefact_id: int) -> Artefact:
    artefact = Artefact.objects.filter(pk=artefact_id).select_related("stored", "portfolio__enrolment").first()
    if artefact is None or artefact.stored is None:
        raise Gone("There is no such file.", fix="Go back to the pocket it was in.")
    require_for_student(person_of(request), Action.SEE_PORTFOLIO, artefact.portfolio.enrolment)
    return artefact


@router.get("/pocket-files/{file_id}", response=bytes, operation_id="read_pocket_file", openapi_extra=READ)
def read_pocket_file(request: HttpRequest, file_id: int) -> HttpResponse:
    """A picture or file that staff give with a pocket."""
    of = pocket_files.readable(person_of(request), file_id)
    picture = of.kind == Artefact.Kind.PICTURE
    return serving.whole(request, of.stored.sha256, of.title, of.stored.media_type, picture=picture)


@router.get(
    "/pocket-files/{file_id}/thumbnail", response=bytes, operation_id="read_pocket_thumbnail", openapi_extra=READ
)
def read_pocket_thumbnail(request: HttpRequest, file_id: int) -> HttpResponse:
    """A large thumbnail of a picture that staff give with a pocket."""
    of = pocket_files.readable(person_of(request), file_id)
    if of.kind != Artefact.Kind.PICTURE:
        raise Gone("Only pictures have thumbnails.", fix="Ask for the file.")
    return serving.thumbnail(request, of.stored.sha256, of.title, of.stored.media_type, "large")
