"""Shapes of handing in and of a student's own dates."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from coatpeg.handins.shapes import LevelKey
from coatpeg.people.shapes import Clock, Day, Shape


class HandInPress(Shape):
    """Handing in: how many submissions the student saw, and whether an empty one is meant."""

    seen: int = Field(ge=0)
    even_if_empty: bool = False
    judged: dict[Annotated[str, Field(max_length=36)], Annotated[list[LevelKey], Field(max_length=2)]] = Field(
        default_factory=dict, max_length=100
    )
    """How the student judges themselves by the hand-in's rubric, where it asks: by criterion the level, or two."""


class ExcuseIn(Shape):
    """Excuse, or end an excuse."""

    excused: bool


class OwnDueIn(Shape):
    """A student's own due date; None takes it away."""

    day: Day | None
    at: Clock | None = None
