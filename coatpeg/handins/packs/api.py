"""Everything handed in for a hand-in as one file."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import FileResponse, HttpRequest
from ninja import Status

from coatpeg.core.policy import Action
from coatpeg.handins.models import Pack
from coatpeg.handins.packs import making
from coatpeg.handins.router import router
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape

SEE = for_action(Action.SEE_SUBMISSION)


FormWord = Literal["zip", "pdf"]
"""A folder for each student, or one PDF to print."""


class PackIn(Shape):
    """As what it is wanted."""

    form: FormWord = "zip"


class PackShape(Shape):
    """How far a pack is: ``done`` of ``total`` students; bytes once it is ready; what went wrong, if it did."""

    key: str
    form: FormWord
    total: int
    done: int
    ready_at: datetime | None
    size: int
    problem: str


def _data(pack: Pack) -> dict[str, Any]:
    return {name: getattr(pack, name) for name in PackShape.model_fields}


@router.post(
    "/groups/{group_id}/handins/{handin_id}/packs",
    response={202: PackShape},
    operation_id="ask_for_pack",
    openapi_extra=SEE,
)
def ask_for_pack(request: HttpRequest, group_id: int, handin_id: int, body: PackIn) -> Any:
    """Have everything that was handed in put together."""
    return Status(202, _data(making.ask(person_of(request), group_id, handin_id, now(), body.form)))


@router.post(
    "/submissions/{submission_id}/marked",
    response={202: PackShape},
    operation_id="ask_for_marked_copy",
    openapi_extra=SEE,
)
def ask_for_marked_copy(request: HttpRequest, submission_id: int) -> Any:
    """Have a submission printed with what is said on it."""
    return Status(202, _data(making.ask_marked(person_of(request), submission_id, now())))


@router.get("/packs/{key}", response=PackShape, operation_id="see_pack", openapi_extra=SEE)
def see_pack(request: HttpRequest, key: str) -> Any:
    """How far it is."""
    return _data(making.pack_of(person_of(request), key))


@router.get("/packs/{key}/file", response=bytes, operation_id="read_pack", openapi_extra=SEE)
def read_pack(request: HttpRequest, key: str) -> FileResponse:
    """The file, to take along."""
    pack = making.pack_of(person_of(request), key)
    content = making.path_of(pack).open("rb")
    response = FileResponse(
        content, as_attachment=True, filename=making.name_of(pack), content_type=f"application/{pack.form}"
    )
    response["Cache-Control"] = "no-store"
    return response
