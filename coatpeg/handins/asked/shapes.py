"""Shapes of setting a hand-in."""

from __future__ import annotations

from datetime import date, time
from decimal import Decimal
from typing import Literal

from pydantic import Field

from coatpeg.handins.shapes import RubricShape
from coatpeg.people.shapes import Clock, Day, Shape

WhomWord = Literal["all", "groups", "students", "but"]
"""Of those whom the periods name: all, the members of some groups, chosen students, all but some."""


ClosingWord = Literal["nothing", "lock_in", "lock_all", "closed"]
"""Once it has closed: nothing, lock what was handed in, lock for all, take in what stands."""


class PlanDue(Shape):
    """A due date with an optional time."""

    day: Day
    at: Clock | None = None


class PeriodPlan(Shape):
    """A period's part in a plan."""

    period: int
    asked: bool = True
    due: PlanDue | None = None


class RepeatIn(Shape):
    """The same again every week or every second one, until a day; 0: once for each unit, from the chosen one on."""

    every: Literal[0, 1, 2]
    until: Day | None = None


class PlanIn(Shape):
    """A hand-in as it is filled in. ``periods`` may be left out; ``for_everyone`` ignores their *asked*."""

    title: str = Field(max_length=200)
    pockets: list[int] = Field(max_length=200)
    follows: bool = False
    """What is added later to the sections that it collects whole belongs to it too."""
    anything: bool = False
    """It asks for anything that fits, instead of naming pockets."""
    since_last: bool = False
    """Of its logs only the rows are handed in that no other hand-in has yet."""
    opens: Day
    due: PlanDue | None = None
    for_everyone: bool = True
    periods: list[PeriodPlan] = Field(default_factory=list, max_length=100)
    points: Decimal | None = Field(default=None, max_digits=6, decimal_places=1)
    step: Decimal = Decimal(1)
    rubric: RubricShape | None = None
    closes: PlanDue | None = None
    directions: str = Field(default="", max_length=100_000)
    files: list[int] = Field(default_factory=list, max_length=50)
    """Pictures and files beside its directions, that came for it (``add_handin_file``)."""
    model_answer: str = Field(default="", max_length=100_000)
    model_from: Day | None = None
    opens_again: bool = False
    again: bool = False
    take_back: bool = True
    """Students may take back what they handed in, until it is due."""
    draft: bool = False
    closing: ClosingWord = "nothing"
    whom: WhomWord = "all"
    groups: list[int] = Field(default_factory=list, max_length=500)
    students: list[int] = Field(default_factory=list, max_length=5_000)
    """Enrolments: those who are asked, or with ``but`` those who are not."""
    repeat: RepeatIn | None = None
    """A series; only as it is set."""
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


class SeriesLine(Shape):
    """One of a series; ``moved`` where its day is not the usual one."""

    number: int
    opens: date
    due: date
    moved: bool


class PreviewShape(Shape):
    """Who will get it and when."""

    asked: int
    not_asked: int
    dues: list[DueLineShape]
    moved: list[MovedShape]
    without_due: list[str]
    warnings: list[str]
    series: list[SeriesLine]


class SetShape(Shape):
    """What was set: the hand-in, or the first of so many of a series."""

    id: int
    title: str
    series: str
    count: int


class SeriesBackShape(Shape):
    """How many were taken back, and the titles of those that stay."""

    taken: int
    left: list[str]
