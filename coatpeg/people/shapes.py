"""Shapes that several rooms' answers share."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, time
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, WithJsonSchema
from pydantic_core import PydanticCustomError

from coatpeg.core.calendar.bounds import EARLIEST, LATEST
from coatpeg.core.policy import Action
from coatpeg.people.reading import ViewWord

KindWord = Literal["evidence", "page", "links", "log"]
"""A kind of pocket."""


Day = Annotated[date, Field(ge=EARLIEST, le=LATEST)]
"""A day that somebody gives."""


def _without_zone(value: time) -> time:
    if value.tzinfo is not None:
        raise PydanticCustomError("clock", "a time of the school's own clock")
    return value


Clock = Annotated[time, AfterValidator(_without_zone)]
"""A time of day that somebody gives, of the school's own clock."""


class Shape(BaseModel):
    """The base of everything the API takes and gives."""

    model_config = ConfigDict(from_attributes=True)


class Face(Shape):
    """How staff see a student in a list."""

    id: int
    family_name: str
    given_name: str
    family_first: bool = False
    """It is written and said family name first."""
    picture: str
    tint: int
    period: str


class MateShape(Shape):
    """Somebody with whom a student fills a pocket, as students see each other."""

    name: str
    picture: str
    tint: int


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


class ReadingShape(Shape):
    """How a person likes to read; ``size`` and the ``pace`` of reading aloud in percent of the usual.

    ``helped`` are the views whose lines of help were put away.
    """

    face: Literal["hyperlegible", "lexend"]
    size: Literal[100, 115, 130, 150]
    spacing: Literal["usual", "wide", "wider"]
    theme: Literal["system", "light", "dark", "contrast"] = "system"
    tint: Literal["none", "cream", "mint", "sky", "rose"]
    ruler: bool
    keys: bool = True
    pace: Literal[60, 80, 100, 120]
    helped: list[ViewWord] = []


MayWord = Annotated[str, WithJsonSchema({"enum": sorted(one.name.lower() for one in Action), "type": "string"})]
"""An action of the policy, by its name."""


def may_words(actions: Iterable[Action]) -> list[str]:
    """Actions by their names, as answers carry what may be done."""
    return sorted(one.name.lower() for one in actions)
