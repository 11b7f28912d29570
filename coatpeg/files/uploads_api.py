"""The tus resumable upload protocol, version 1.0.0, with creation, termination and expiration.

And what an upload became.
"""

from __future__ import annotations

from datetime import UTC
from email.utils import format_datetime

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router

from coatpeg.core.errors import Invalid, OtherVersion
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import tus
from coatpeg.files import uploads
from coatpeg.files.models import Upload
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape

router = Router(tags=["uploads"])


class UploadShape(Shape):
    """An upload: how many bytes are here, whether it is done, the evidence it became, what was changed about its name.

    ``ready`` where what it became can be seen; until then a picture is being cleaned. ``waits_for`` names the batch
    whose other pages are still to come.
    """

    key: str
    here: int
    size: int
    done: bool
    ready: bool
    waits_for: str
    evidence: int | None
    note: str


FILL = for_action(Action.FILL_POCKET)


def _answer(status: int, headers: dict[str, str] | None = None, upload: Upload | None = None) -> HttpResponse:
    always = {"Tus-Resumable": tus.VERSION, "Cache-Control": "no-store"}
    response = HttpResponse(status=status, headers={**always, **(headers or {})})
    if upload and upload.done_at is None:
        ends = (upload.begun_at + uploads.LIFE).astimezone(UTC)
        response["Upload-Expires"] = format_datetime(ends, usegmt=True)
    return response


def _same_version(request: HttpRequest) -> None:
    """Refuse a client that speaks another version of the protocol."""
    if request.headers.get("Tus-Resumable") != tus.VERSION:
        raise OtherVersion(
            "This is not the version of tus that is spoken here.", where="Tus-Resumable", fix=tus.VERSION
        )


@router.api_operation(["OPTIONS"], "/uploads", response=None, operation_id="upload_options", openapi_extra=FILL)
def upload_options(request: HttpRequest) -> HttpResponse:
    """What of the protocol is spoken here."""
    return _answer(
        204, {"Tus-Version": tus.VERSION, "Tus-Extension": tus.EXTENSIONS, "Tus-Max-Size": str(settings.UPLOAD_LIMIT)}
    )


@router.post("/uploads", response=None, operation_id="begin_upload", openapi_extra=FILL)
def begin_upload(request: HttpRequest) -> HttpResponse:
    """Begin an upload (``Upload-Length``, ``Upload-Metadata``); its address is in ``Location``."""
    _same_version(request)
    size = tus.read_number(request.headers.get("Upload-Length"), "Upload-Length")
    wish = uploads.Wish.read(tus.read_metadata(request.headers.get("Upload-Metadata", "")), size)
    upload = uploads.begin(person_of(request), wish, now())
    return _answer(201, {"Location": f"/api/uploads/{upload.key}"}, upload)


@router.api_operation(["HEAD"], "/uploads/{key}", response=None, operation_id="upload_offset", openapi_extra=FILL)
def upload_offset(request: HttpRequest, key: str) -> HttpResponse:
    """How many bytes are here."""
    _same_version(request)
    upload = uploads.named(person_of(request), key)
    return _answer(200, {"Upload-Offset": str(uploads.offset(upload)), "Upload-Length": str(upload.size)}, upload)


@router.patch("/uploads/{key}", response=None, operation_id="append_upload", openapi_extra=FILL)
def append_upload(request: HttpRequest, key: str) -> HttpResponse:
    """Go on at ``Upload-Offset``; with the last byte the file is taken in."""
    _same_version(request)
    if request.content_type != tus.BODY:
        raise Invalid(
            f"The body is “{(request.content_type or '')[:60]}”.", where="Content-Type", fix=f"Send {tus.BODY}."
        )
    upload = uploads.named(person_of(request), key)
    at = tus.read_number(request.headers.get("Upload-Offset"), "Upload-Offset")
    coming = tus.read_number(request.META.get("CONTENT_LENGTH") or None, "Content-Length")
    if at + coming > upload.size:
        raise Invalid(
            f"{coming} bytes after the first {at} are more than the {upload.size} that were announced.",
            where="Content-Length",
            fix="Send what was announced, or begin anew with the true length.",
        )
    here = uploads.append(upload, at, uploads.read_from(request), now())  # type: ignore[arg-type]  # a request reads like a file
    return _answer(204, {"Upload-Offset": str(here)}, upload)


@router.delete("/uploads/{key}", response=None, operation_id="end_upload", openapi_extra=FILL)
def end_upload(request: HttpRequest, key: str) -> HttpResponse:
    """Let an upload go."""
    _same_version(request)
    uploads.give_up(uploads.named(person_of(request), key))
    return _answer(204)


@router.post("/uploads/{key}/settle", response=UploadShape, operation_id="settle_upload", openapi_extra=FILL)
def settle_upload(request: HttpRequest, key: str) -> UploadShape:
    """What an upload has become; where all its bytes are here and it has not, it does now."""
    upload = uploads.settle(uploads.named(person_of(request), key), now())
    return UploadShape(
        key=upload.key,
        here=uploads.offset(upload),
        size=upload.size,
        done=upload.done_at is not None,
        ready=upload.done_at is not None and not uploads.waits(upload),
        waits_for=upload.batch if upload.done_at is None else "",
        evidence=upload.result.get("evidence"),
        note=upload.note,
    )
