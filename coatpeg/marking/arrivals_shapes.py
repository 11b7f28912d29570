"""Shapes of the list of what came in."""

from __future__ import annotations

from datetime import date, datetime, time
from typing import Literal

from pydantic import Field

from coatpeg.handins.shapes import StandingShape
from coatpeg.marking.shapes import Draft
from coatpeg.people.shapes import Face, Named, Shape
from coatpeg.portfolios.shapes import ArtefactShape


class ArrivalsIn(Shape):
    """Of whom, for what, in which order, from which place on."""

    students: list[int] = Field(max_length=20_000)
    handins: list[int] = Field(max_length=1_000)
    start: int = Field(default=0, ge=0)
    order: Literal["newest", "board"] = "newest"
    statuses: list[Literal["handed_in", "accepted", "sent_back"]] = Field(default_factory=list, max_length=3)
    """Only what stands so; none named: all of it."""
    late: bool = False
    """Only what came late."""


class ArrivalLine(StandingShape):
    """One submission: ``words`` are the student's first ones, ``more`` artefacts are not named here."""

    submission: int
    number: int
    at: datetime
    student: Face
    portfolio: int
    handin: Named
    points: float | None
    by_rubric: bool
    """Whether the score comes from a rubric, and is not typed."""
    pockets: list[str]
    due: date | None
    due_time: time | None
    due_at: datetime | None
    extra_days: int
    empty: bool
    artefacts: list[ArtefactShape]
    more: int
    words: str
    draft: Draft | None
    """One's own, where one marks."""


class ArrivalsShape(Shape):
    """A page of what came in; ``next`` is where the following one begins."""

    lines: list[ArrivalLine]
    total: int
    next: int | None
