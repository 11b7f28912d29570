"""Shapes of setting a hand-in."""

from __future__ import annotations

from datetime import date, time
from decimal import Decimal

from pydantic import Field

from coatpeg.people.shapes import Clock, Day, Shape


class PlanDue(Shape):
    """A due date with an optional time."""

    day: Day
    at: Clock | None = None


class PeriodPlan(Shape):
    """A period's part in a plan."""

    period: int
    asked: bool = True
    due: PlanDue | None = None


class PlanIn(Shape):
    """A hand-in as it is filled in. ``periods`` may be left out; ``for_everyone`` ignores their *asked*."""

    title: str = Field(max_length=200)
    pockets: list[int] = Field(max_length=200)
    opens: Day
    due: PlanDue | None = None
    for_everyone: bool = True
    periods: list[PeriodPlan] = Field(default_factory=list, max_length=100)
    points: Decimal | None = Field(default=None, max_digits=6, decimal_places=1)
    step: Decimal = Decimal(1)
    key: str | None = Field(default=None, max_length=36, pattern=r"^[A-Za-z0-9-]+$")
    """The form's own name of it: sent twice, it is set once."""


class DueLineShape(Shape):
    """How many students have one due."""

    day: date | None
    at: time | None
    students: int


class MovedShape(Shape):
    """A student whose due an adjustment moves."""

    name: str
    day: date
    extra_days: int


class PreviewShape(Shape):
    """Who will get it and when."""

    asked: int
    not_asked: int
    dues: list[DueLineShape]
    moved: list[MovedShape]
    without_due: list[str]
    warnings: list[str]
