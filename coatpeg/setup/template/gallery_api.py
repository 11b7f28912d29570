"""The gallery of templates, adopting and publishing, carrying over from another class."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.outlines import gallery
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape
from coatpeg.setup.template import galleries, undoing

router = Router(tags=["gallery"])
SEE = for_action(Action.SEE_TEMPLATE)
EDIT = for_action(Action.EDIT_TEMPLATE)


class ShownSection(Shape):
    """A section of a gallery template with the names of its pockets."""

    key: str
    title: str
    pockets: list[str]


class ShownTemplate(Shape):
    """A template of the gallery; ``by`` is empty for those that ship with Coat Peg."""

    id: int
    title: str
    description: str
    by: str
    version: int
    at: datetime
    sections: list[ShownSection]


class PublishIn(Shape):
    """What the gallery says of a template."""

    title: str
    description: str = ""


class NoveltyShape(Shape):
    """A pocket that is new, other or gone in the newer version."""

    what: Literal["added", "changed", "gone"]
    key: str
    title: str
    section: str
    fields: list[str]


class GalleryState(Shape):
    """Where a class's template stands towards the gallery."""

    published: PublishIn | None
    adopted: str | None
    newest: int | None
    news: list[NoveltyShape]


class WantedSection(Shape):
    """A section that is wanted, by its key; under another title where one is given."""

    key: str = Field(max_length=64)
    title: str = Field(default="", max_length=300)


class SectionsIn(Shape):
    """Which sections come (none said: all)."""

    sections: list[WantedSection] | None = Field(default=None, max_length=100)

    def wanted(self) -> dict[str, str] | None:
        """Their titles by key."""
        return None if self.sections is None else {one.key: one.title.strip() for one in self.sections}


class AdoptIn(SectionsIn):
    """The gallery template to adopt."""

    template: int


class CarryIn(SectionsIn):
    """The class to carry over from, and whether its hand-ins and what its cupboard holds come along."""

    source: int
    handins: bool = False
    cupboard: bool = False


class BroughtShape(Shape):
    """How many pockets and hand-ins came; the sections made and pockets ``added`` elsewhere, by which it is undone."""

    pockets: int
    handins: int
    sections: list[int]
    added: list[int]
    items: int
    """How many things came into the cupboard."""


class UndoBroughtIn(Shape):
    """The sections that were made, and the pockets added to others."""

    sections: list[int]
    added: list[int] = Field(default_factory=list)


class BringIn(Shape):
    """The pocket of a change, by key."""

    key: str


@router.get(
    "/gallery",
    response=list[ShownTemplate],
    operation_id="see_gallery",
    openapi_extra=for_action(Action.SEE_GALLERY),
)
def see_gallery(request: HttpRequest, text: str = "") -> Any:
    """Templates of the gallery by words of their title, description or author."""
    return gallery.shown(person_of(request), text)


@router.get(
    "/groups/{group_id}/template/gallery", response=GalleryState, operation_id="see_gallery_state", openapi_extra=SEE
)
def see_gallery_state(request: HttpRequest, group_id: int) -> Any:
    """What a class's template has to do with the gallery."""
    return galleries.state(person_of(request), group_id)


@router.put(
    "/groups/{group_id}/template/gallery",
    response={204: None},
    operation_id="publish_template",
    openapi_extra=EDIT,
)
def publish_template(request: HttpRequest, group_id: int, body: PublishIn) -> Any:
    """Publish the class's template, or a new version of it."""
    galleries.publish(person_of(request), group_id, body.title, body.description, now())
    return Status(204, None)


@router.delete(
    "/groups/{group_id}/template/gallery",
    response={204: None},
    operation_id="withdraw_template",
    openapi_extra=EDIT,
)
def withdraw_template(request: HttpRequest, group_id: int) -> Any:
    """Take the class's template out of the gallery."""
    galleries.withdraw(person_of(request), group_id, now())
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/adopt", response=BroughtShape, operation_id="adopt_template", openapi_extra=EDIT
)
def adopt_template(request: HttpRequest, group_id: int, body: AdoptIn) -> Any:
    """Adopt a template of the gallery."""
    return galleries.adopt(person_of(request), group_id, body.template, now(), body.wanted())


@router.post(
    "/groups/{group_id}/template/carry-over", response=BroughtShape, operation_id="carry_over", openapi_extra=EDIT
)
def carry_over(request: HttpRequest, group_id: int, body: CarryIn) -> Any:
    """Carry the structure of another class over, with its hand-ins if wanted."""
    person, wanted = person_of(request), body.wanted()
    return galleries.carry_over(
        person, group_id, body.source, now(), handins=body.handins, wanted=wanted, cupboard=body.cupboard
    )


@router.post(
    "/groups/{group_id}/template/brought/undo",
    response={204: None},
    operation_id="undo_brought",
    openapi_extra=EDIT,
)
def undo_brought(request: HttpRequest, group_id: int, body: UndoBroughtIn) -> Any:
    """Take away again what was adopted or carried over last, where nobody has begun in it."""
    undoing.undo_brought(person_of(request), group_id, body.sections, now(), body.added)
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/news/bring", response={204: None}, operation_id="bring_in", openapi_extra=EDIT
)
def bring_in(request: HttpRequest, group_id: int, body: BringIn) -> Any:
    """Bring in one change of the newer version."""
    galleries.bring_in(person_of(request), group_id, body.key, now())
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/news/seen", response={204: None}, operation_id="look_through", openapi_extra=EDIT
)
def look_through(request: HttpRequest, group_id: int) -> Any:
    """Leave the rest of what is new."""
    galleries.look_through(person_of(request), group_id, now())
    return Status(204, None)
