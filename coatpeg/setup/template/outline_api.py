"""Typed and pasted outlines: understood, and laid out."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.settings import plan_to_data
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.log_columns import log_to_data
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import KindWord, Shape
from coatpeg.portfolios.shapes import LogColumn
from coatpeg.setup.template import outlining
from coatpeg.setup.template.gallery_api import BroughtShape
from coatpeg.setup.template.shapes import PocketSettings

router = Router(tags=["templates"])
EDIT = for_action(Action.EDIT_TEMPLATE)
LONGEST = 200_000


class TypedIn(Shape):
    """A typed or pasted text."""

    text: str = Field(max_length=LONGEST)


class OutlineIn(TypedIn):
    """An outline; ``kind`` of pockets of which nothing is said, ``section`` for pockets that stand in none."""

    kind: KindWord = "evidence"
    section: int | None = None


class OutlineNote(Shape):
    """Something to tell of a line."""

    line: int
    what: str
    fix: str


class ReadPocket(Shape):
    """A pocket as it was understood."""

    line: int
    settings: PocketSettings


class ReadSection(Shape):
    """A section as it was understood; without a title where its pockets stand in none."""

    title: str
    repeats: bool
    pockets: list[ReadPocket]


class ReadOutline(Shape):
    """What an outline would lay out; ``problems`` have to be mended before."""

    sections: list[ReadSection]
    into: str
    pockets: int
    notes: list[OutlineNote]
    problems: list[OutlineNote]


class ReadUnit(Shape):
    """A unit as it was understood; ``opens`` as it was written."""

    title: str
    opens: str
    questions: list[str]


@router.post(
    "/groups/{group_id}/template/outline/read",
    response=ReadOutline,
    operation_id="read_outline",
    openapi_extra=EDIT,
)
def read_outline(request: HttpRequest, group_id: int, body: OutlineIn) -> Any:
    """What an outline would lay out."""
    found = outlining.understand(person_of(request), group_id, body.text, PocketKind(body.kind), body.section)
    outline = found.outline
    return {
        "sections": [
            {
                "title": section.title,
                "repeats": section.repeats,
                "pockets": [{"line": one.line, "settings": plan_to_data(one.plan)} for one in section.pockets],
            }
            for section in outline.sections
        ],
        "into": found.into,
        "pockets": outline.pockets,
        "notes": outline.notes,
        "problems": outline.problems,
    }


@router.post(
    "/groups/{group_id}/template/outline",
    response=BroughtShape,
    operation_id="lay_out_outline",
    openapi_extra=EDIT,
)
def lay_out_outline(request: HttpRequest, group_id: int, body: OutlineIn) -> Any:
    """Lay out an outline."""
    person, kind = person_of(request), PocketKind(body.kind)
    return outlining.lay_out_outline(person, group_id, body.text, kind, body.section, now())


@router.post(
    "/groups/{group_id}/template/columns/read",
    response=list[LogColumn],
    operation_id="read_log_columns",
    openapi_extra=EDIT,
)
def read_log_columns(request: HttpRequest, group_id: int, body: TypedIn) -> Any:
    """The columns that a line of headings names."""
    return log_to_data(outlining.columns_in(person_of(request), group_id, body.text))["columns"]


@router.post(
    "/groups/{group_id}/template/units/read",
    response=list[ReadUnit],
    operation_id="read_units",
    openapi_extra=EDIT,
)
def read_units(request: HttpRequest, group_id: int, body: TypedIn) -> Any:
    """The units that a text names."""
    return list(outlining.units_in(person_of(request), group_id, body.text))
