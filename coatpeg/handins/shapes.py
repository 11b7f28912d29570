"""Shapes that several views of hand-ins show."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from coatpeg.people.shapes import Shape

StatusWord = Literal["not_asked", "excused", "accepted", "sent_back", "handed_in", "not_open", "working", "empty"]


class StandingShape(Shape):
    """A status with its flags; ``late_days`` are school days."""

    status: StatusWord
    late: bool
    late_days: int
    late_seconds: int
    overdue: bool


class ChipShape(Shape):
    """One thing wanted."""

    what: Literal["artefacts", "links", "reflection", "page", "rows", "weekly"]
    done: int
    wanted: int
    met: bool
    on: str
    measure: Literal["", "words", "sentences"]
    least: int
    most: int | None
    count: int


class ForThemShape(Shape):
    """Who of the staff handed in for a student, when they did, and how the work came."""

    by: str
    at: datetime
    how: Literal["paper", "mail", "other", "closed"]


class SubmissionLine(Shape):
    """A submission in a list."""

    id: int
    number: int
    at: datetime
    receipt: str
    voided_at: datetime | None
    for_them: ForThemShape | None
    links: int
    empty: bool
    outcome: Literal["accepted", "sent_back"] | None
    outcome_at: datetime | None
    outcome_pockets: list[int]
