"""Shapes that several views of hand-ins show."""

from __future__ import annotations

from datetime import datetime
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from coatpeg.core.marking.rubrics import Level, Row, Rubric
from coatpeg.people.shapes import Shape

StatusWord = Literal["not_asked", "excused", "accepted", "sent_back", "handed_in", "not_open", "working", "empty"]


class StandingShape(Shape):
    """A status with its flags; ``late_days`` are school days."""

    status: StatusWord
    late: bool
    late_days: int
    late_seconds: int
    overdue: bool


LevelKey = Annotated[str, Field(max_length=36)]


class RubricLevel(Shape):
    """A level with its points; as a range from ``low`` to these."""

    key: str = Field(max_length=36)
    title: str = Field(max_length=500)
    points: float
    low: float | None = None


class RubricCriterion(Shape):
    """A criterion with its weight, and what each level means for it."""

    key: str = Field(max_length=36)
    title: str = Field(max_length=500)
    weight: float
    says: list[Annotated[str, Field(max_length=5_000)]] = Field(max_length=20)


class RubricShape(Shape):
    """What work is judged by; ``halves``: a criterion may lie between two neighbouring levels."""

    levels: list[RubricLevel] = Field(max_length=20)
    criteria: list[RubricCriterion] = Field(max_length=100)
    halves: bool = False
    by_student: bool = False
    """Whether students are asked to judge themselves by it before they hand in."""

    def taken(self) -> Rubric:
        """As the core takes it, not checked yet."""
        return Rubric(
            tuple(
                Level(one.key, one.title, Decimal(str(one.points)), None if one.low is None else Decimal(str(one.low)))
                for one in self.levels
            ),
            tuple(Row(one.key, one.title, Decimal(str(one.weight)), tuple(one.says)) for one in self.criteria),
            self.halves,
            self.by_student,
        )


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
