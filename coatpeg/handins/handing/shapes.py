"""Shapes of handing in and of a student's own dates."""

from __future__ import annotations

from pydantic import Field

from coatpeg.people.shapes import Clock, Day, Shape


class HandInPress(Shape):
    """Handing in: how many submissions the student saw, and whether an empty one is meant."""

    seen: int = Field(ge=0)
    even_if_empty: bool = False


class ExcuseIn(Shape):
    """Excuse, or end an excuse."""

    excused: bool


class OwnDueIn(Shape):
    """A student's own due date; None takes it away."""

    day: Day | None
    at: Clock | None = None
