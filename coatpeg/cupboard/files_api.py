"""The bytes of files in the cupboard, and how the viewer shows them."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.cupboard.models import CupboardItem
from coatpeg.cupboard.reading import shown_item
from coatpeg.files import previews, serving
from coatpeg.files.models import StoredFile
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.portfolios.shapes import ViewDocument, ViewShape

router = Router(tags=["cupboard"])
SEE = for_action(Action.SEE_CUPBOARD)
_SHOWN = (ArtefactKind.PICTURE, ArtefactKind.SOUND, ArtefactKind.VIDEO)


def _file(request: HttpRequest, item_id: int) -> tuple[CupboardItem, StoredFile]:
    """An item with bytes that whoever asks is shown, and those bytes' row."""
    item = shown_item(person_of(request), item_id, now())
    if item.stored is None:
        raise Gone(f"“{item.title}” is no file.", fix="Open it in the cupboard.")
    return item, item.stored


@router.get("/cupboard/{item_id}/file", response=bytes, operation_id="read_item_file", openapi_extra=SEE)
def read_item_file(request: HttpRequest, item_id: int, *, download: bool = False) -> HttpResponse:
    """The bytes of a file in the cupboard."""
    item, stored = _file(request, item_id)
    shown = item.file_kind in _SHOWN
    return serving.whole(request, stored.sha256, item.title, stored.media_type, shown=shown, download=download)


@router.get("/cupboard/{item_id}/thumbnail", response=bytes, operation_id="read_item_thumbnail", openapi_extra=SEE)
def read_item_thumbnail(request: HttpRequest, item_id: int) -> HttpResponse:
    """A large thumbnail of a picture in the cupboard."""
    item, stored = _file(request, item_id)
    if item.file_kind != ArtefactKind.PICTURE:
        raise Gone("Only pictures have thumbnails.", fix="Ask for the file.")
    return serving.thumbnail(request, stored.sha256, item.title, stored.media_type, "large")


@router.get("/cupboard/{item_id}/view", response=ViewShape, operation_id="view_item", openapi_extra=SEE)
def view_item(request: HttpRequest, item_id: int) -> ViewShape:
    """How far the viewer of a file in the cupboard is."""
    item, stored = _file(request, item_id)
    return ViewShape(**previews.view_of(stored, item.title, now()))


@router.get(
    "/cupboard/{item_id}/view/document", response=ViewDocument, operation_id="view_item_document", openapi_extra=SEE
)
def view_item_document(request: HttpRequest, item_id: int) -> ViewDocument:
    """What the viewer shows of a file in the cupboard that is no picture."""
    return ViewDocument.model_validate(previews.document_of(_file(request, item_id)[1]))


@router.get("/cupboard/{item_id}/view/pages/{number}", response=bytes, operation_id="view_item_page", openapi_extra=SEE)
def view_item_page(request: HttpRequest, item_id: int, number: int) -> HttpResponse:
    """One page of a file in the cupboard, from 1, as a picture."""
    item, stored = _file(request, item_id)
    if not 0 < number <= previews.view_of(stored, item.title, now())["pages"]:
        raise Gone("There is no such page.", fix="Look at another page.")
    return serving.bytes_of(request, stored.sha256, item.title, "image/jpeg", part=f"page-{number}")
