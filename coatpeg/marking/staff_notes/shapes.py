"""Shapes of staff notes."""

from __future__ import annotations

from datetime import datetime

from pydantic import Field

from coatpeg.people.shapes import Shape


class StaffNoteShape(Shape):
    """A note, and what it is about: the student where no submission is named."""

    id: int
    who: str
    mine: bool
    at: datetime
    text: str
    submission: int | None
    handin: str
    evidence: int | None


class StaffNoteIn(Shape):
    """A note on the student, a submission of theirs, or an evidence in that."""

    text: str = Field(max_length=50_000)
    submission: int | None = None
    evidence: int | None = None
