"""Shapes of notes to the class."""

from __future__ import annotations

from datetime import datetime

from pydantic import Field

from coatpeg.people.shapes import Named, Shape


class ClassNoteShape(Shape):
    """A note to all whom a hand-in is asked of."""

    id: int
    handin: Named
    who: str
    mine: bool
    at: datetime
    text: str


class ClassNoteIn(Shape):
    """What is said; ``key`` is the page's own name of it, so that the same sent again is the same one."""

    key: str = Field(min_length=1, max_length=36)
    text: str = Field(max_length=100_000)
