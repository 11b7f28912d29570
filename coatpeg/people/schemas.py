"""Shapes that several rooms' answers share."""

from __future__ import annotations

from datetime import date
from typing import Literal

from pydantic import BaseModel, ConfigDict

KindWord = Literal["evidence", "page", "links", "log"]
"""A kind of pocket."""


class Shape(BaseModel):
    """The base of everything the API takes and gives."""

    model_config = ConfigDict(from_attributes=True)


class Face(Shape):
    """How staff see a student in a list."""

    id: int
    family_name: str
    given_name: str
    picture: str
    tint: int
    period: str


class NamedFace(Face):
    """The same with the name as it is said."""

    full_name: str


class Named(Shape):
    """A thing by id and title."""

    id: int
    title: str


class ErrorShape(Shape):
    """Problem details (RFC 9457): what happened, where, and how to fix it."""

    type: str
    title: str
    status: int
    where: str = ""
    fix: str = ""


class AdjustmentShape(Shape):
    """What was agreed for a student. ``percent`` of the asked length; ``without``: kinds of pocket."""

    id: int
    extra_days: int
    fewer_artefacts: int
    percent: int
    spoken: bool
    without: list[KindWord]
    first: date
    last: date | None
    reason: str
    by: str
    version: int
