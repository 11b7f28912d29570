"""Putting work into pockets, and reading the bytes of artefacts."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import File, Form
from ninja.files import UploadedFile

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import previews, serving
from coatpeg.files.models import StoredFile
from coatpeg.outlines import given_files
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.portfolios.evidence import commands, spoken
from coatpeg.portfolios.finding import require_for_artefact
from coatpeg.portfolios.models import Artefact, KeptText
from coatpeg.portfolios.router import router
from coatpeg.portfolios.shapes import LinkIn, SavedShape, SpokenIn, TextIn, ViewDocument, ViewShape

FILL = for_action(Action.FILL_POCKET)
LOOK = for_action(Action.SEE_PORTFOLIO)
_SHOWN = (ArtefactKind.PICTURE, ArtefactKind.SOUND, ArtefactKind.VIDEO)
READ = for_action(Action.READ_DIRECTIONS)


def saved(kept: KeptText, note: str = "", *, seen: int | None = None) -> SavedShape:
    """A text after a save by somebody who saw version ``seen``."""
    return SavedShape(
        id=kept.pk,
        text=kept.text,
        html=kept.html,
        version=kept.version,
        words=kept.words,
        sentences=kept.sentences,
        note=note,
        merged=seen is not None and kept.version > seen + 1,
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
    return saved(evidence, note)


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/links",
    response=SavedShape,
    operation_id="add_link",
    openapi_extra=FILL,
)
def add_link(request: HttpRequest, portfolio_id: int, pocket_id: int, body: LinkIn) -> SavedShape:
    """Put a link into a pocket."""
    of = (person_of(request), portfolio_id, pocket_id, body.link, body.title, now())
    return saved(commands.add_link(*of, even_so=body.even_so))


@router.put(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/page",
    response=SavedShape,
    operation_id="write_page",
    openapi_extra=FILL,
)
def write_page(request: HttpRequest, portfolio_id: int, pocket_id: int, body: TextIn) -> SavedShape:
    """Save the text of a page."""
    of = (person_of(request), portfolio_id, pocket_id, body.text, body.version, now())
    return saved(commands.write_page(*of, html=body.html, base=body.base), seen=body.version)


@router.put(
    "/evidence/{evidence_id}/reflection", response=SavedShape, operation_id="write_reflection", openapi_extra=FILL
)
def write_reflection(request: HttpRequest, evidence_id: int, body: TextIn) -> SavedShape:
    """Save the reflection on an artefact."""
    of = (person_of(request), evidence_id, body.text, body.version, now())
    return saved(commands.write_reflection(*of, base=body.base), seen=body.version)


@router.delete("/evidence/{evidence_id}", response=SavedShape, operation_id="remove_evidence", openapi_extra=FILL)
def remove_evidence(request: HttpRequest, evidence_id: int) -> SavedShape:
    """Take an artefact out of its pocket."""
    return saved(commands.remove_evidence(person_of(request), evidence_id, now()))


@router.post(
    "/evidence/{evidence_id}/restore", response=SavedShape, operation_id="restore_evidence", openapi_extra=FILL
)
def restore_evidence(request: HttpRequest, evidence_id: int) -> SavedShape:
    """Bring back what was taken out."""
    return saved(commands.restore_evidence(person_of(request), evidence_id, now()))


@router.post("/evidence/{evidence_id}/spoken", response=SavedShape, operation_id="say_again", openapi_extra=FILL)
def say_again(request: HttpRequest, evidence_id: int, body: SpokenIn) -> SavedShape:
    """Let a recording of before be the reflection again."""
    return saved(spoken.bring_back(person_of(request), evidence_id, body.artefact, now()))


@router.delete("/evidence/{evidence_id}/spoken", response=SavedShape, operation_id="unsay", openapi_extra=FILL)
def unsay(request: HttpRequest, evidence_id: int) -> SavedShape:
    """Take the recording away from a reflection."""
    return saved(spoken.unsay(person_of(request), evidence_id, now()))


@router.get("/artefacts/{artefact_id}/file", response=bytes, operation_id="read_file", openapi_extra=LOOK)
def read_file(request: HttpRequest, artefact_id: int, *, download: bool = False) -> HttpResponse:
    """The bytes of an artefact: a picture to see, a recording to play, anything else to download."""
    artefact, stored = _readable(request, artefact_id)
    title = f"{artefact.title.removesuffix('.pdf')}.pdf" if artefact.kind == ArtefactKind.SCAN else artefact.title
    shown = artefact.kind in _SHOWN
    return serving.whole(request, stored.sha256, title, stored.media_type, shown=shown, download=download)


@router.get(
    "/artefacts/{artefact_id}/thumbnails/{size}", response=bytes, operation_id="read_thumbnail", openapi_extra=LOOK
)
def read_thumbnail(request: HttpRequest, artefact_id: int, size: Literal["small", "large"]) -> HttpResponse:
    """A thumbnail of a picture."""
    artefact, stored = _readable(request, artefact_id)
    if artefact.kind not in (ArtefactKind.PICTURE, ArtefactKind.SCAN):
        raise Gone("Only pictures have thumbnails.", fix="Ask for the file.")
    kind = "image/jpeg" if artefact.kind == ArtefactKind.SCAN else stored.media_type
    return serving.thumbnail(request, stored.sha256, artefact.title, kind, size)


def _readable(request: HttpRequest, artefact_id: int) -> tuple[Artefact, StoredFile]:
    """An artefact with bytes that whoever asks may read, and those bytes' row."""
    artefact = Artefact.objects.filter(pk=artefact_id).select_related("stored", "portfolio__enrolment").first()
    if artefact is None or artefact.stored is None:
        raise Gone("There is no such file.", fix="Go back to the pocket it was in.")
    require_for_artefact(person_of(request), artefact)
    return artefact, artefact.stored


@router.get("/artefacts/{artefact_id}/view", response=ViewShape, operation_id="view_file", openapi_extra=LOOK)
def view_file(request: HttpRequest, artefact_id: int) -> ViewShape:
    """How far the viewer of a file is."""
    artefact, stored = _readable(request, artefact_id)
    return ViewShape(**previews.view_of(stored, artefact.title, now()))


@router.get(
    "/artefacts/{artefact_id}/view/document", response=ViewDocument, operation_id="view_document", openapi_extra=LOOK
)
def view_document(request: HttpRequest, artefact_id: int) -> ViewDocument:
    """What the viewer shows of a file that is no picture."""
    return ViewDocument.model_validate(previews.document_of(_readable(request, artefact_id)[1]))


@router.get(
    "/artefacts/{artefact_id}/view/pages/{number}", response=bytes, operation_id="view_page", openapi_extra=LOOK
)
def view_page(request: HttpRequest, artefact_id: int, number: int) -> HttpResponse:
    """One page of a file, from 1, as a picture."""
    artefact, stored = _readable(request, artefact_id)
    return _page(request, stored, artefact.title, number)


def _page(request: HttpRequest, stored: StoredFile, title: str, number: int) -> HttpResponse:
    if not 0 < number <= previews.view_of(stored, title, now())["pages"]:
        raise Gone("There is no such page.", fix="Look at another page.")
    return serving.bytes_of(request, stored.sha256, title, "image/jpeg", part=f"page-{number}")


@router.get("/given-files/{file_id}", response=bytes, operation_id="read_given_file", openapi_extra=READ)
def read_given_file(request: HttpRequest, file_id: int) -> HttpResponse:
    """A picture or file that staff give with a pocket or a hand-in."""
    of = given_files.readable(person_of(request), file_id)
    return serving.whole(request, of.stored.sha256, of.title, of.stored.media_type, shown=of.kind in _SHOWN)


@router.get("/given-files/{file_id}/thumbnail", response=bytes, operation_id="read_given_thumbnail", openapi_extra=READ)
def read_given_thumbnail(request: HttpRequest, file_id: int) -> HttpResponse:
    """A large thumbnail of a picture that staff give."""
    of = given_files.readable(person_of(request), file_id)
    if of.kind != ArtefactKind.PICTURE:
        raise Gone("Only pictures have thumbnails.", fix="Ask for the file.")
    return serving.thumbnail(request, of.stored.sha256, of.title, of.stored.media_type, "large")


@router.get("/given-files/{file_id}/view", response=ViewShape, operation_id="view_given_file", openapi_extra=READ)
def view_given_file(request: HttpRequest, file_id: int) -> ViewShape:
    """How far the viewer of a given file is."""
    of = given_files.readable(person_of(request), file_id)
    return ViewShape(**previews.view_of(of.stored, of.title, now()))


@router.get(
    "/given-files/{file_id}/view/document",
    response=ViewDocument,
    operation_id="view_given_document",
    openapi_extra=READ,
)
def view_given_document(request: HttpRequest, file_id: int) -> ViewDocument:
    """What the viewer shows of a given file that is no picture."""
    return ViewDocument.model_validate(previews.document_of(given_files.readable(person_of(request), file_id).stored))


@router.get(
    "/given-files/{file_id}/view/pages/{number}", response=bytes, operation_id="view_given_page", openapi_extra=READ
)
def view_given_page(request: HttpRequest, file_id: int, number: int) -> HttpResponse:
    """One page of a given file, from 1, as a picture."""
    of = given_files.readable(person_of(request), file_id)
    return _page(request, of.stored, of.title, number)
