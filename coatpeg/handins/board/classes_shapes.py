"""Shapes of *My classes*, and of the patterns of one."""

from __future__ import annotations

from datetime import date, datetime

from pydantic import Field

from coatpeg.people.shapes import Face, Shape


class NextHandIn(Shape):
    """The hand-in of a class that is due next, or was due last; ``due`` is the next of its days."""

    id: int
    title: str
    opens: date
    open: bool
    due: date | None
    asked: int
    in_: int = Field(alias="in", serialization_alias="in")


class ClassLine(Shape):
    """A class: ``owing`` and ``quiet`` count students of today, ``to_mark`` submissions, ``due_today`` hand-ins."""

    id: int
    name: str
    kind: str
    role: str
    periods: list[str]
    students: int
    handin: NextHandIn | None
    due_today: int
    owing: int
    to_mark: int
    quiet: int


class OldestWaiting(Shape):
    """What has waited longest to be marked."""

    group: int
    class_name: str
    student: Face
    handin: str
    submission: int
    at: datetime
    school_days: int


class CurvePoint(Shape):
    """How many were in by a whole day after due (negative: before it)."""

    day: int
    count: int


class HandInPattern(Shape):
    """How a hand-in came in; the quartiles are days before due, negative after it."""

    id: int
    title: str
    due: date | None
    asked: int
    in_: int = Field(alias="in", serialization_alias="in")
    late: int
    curve: list[CurvePoint]
    low: float | None
    middle: float | None
    high: float | None


class StudentPattern(Face):
    """A student: ``share`` of what is wanted by today, lateness of what came; ``late_days`` are school days."""

    met: int
    wanted: int
    share: float | None
    behind: bool
    late: int
    came: int
    late_days: float
    usually_late: bool


class PatternsIn(Shape):
    """Whose patterns: the enrolments that a filter left, or everybody's. One of another class counts nowhere."""

    students: list[int] | None = Field(default=None, max_length=20_000)


class PatternsShape(Shape):
    """The patterns of those asked for; ``median`` of the shares of the whole class."""

    handins: list[HandInPattern]
    students: list[StudentPattern]
    median: float | None


class MyClassesShape(Shape):
    """All classes of a member of staff."""

    today: date
    classes: list[ClassLine]
    to_mark: int
    """Submissions that wait where this person marks."""
    oldest: OldestWaiting | None


class FullFor(Shape):
    """A student for whom a week is too full, and how much is due for them in it."""

    enrolment: int
    number: int


class WeekLoad(Shape):
    """A week: the most hand-ins of one student, how many students have too many, and which (for observers only)."""

    monday: date
    most: int
    heavy: int
    full: list[FullFor]


class LoadShape(Shape):
    """The weeks in which anything is due for students of a class, over all their classes.

    From ``limit`` hand-ins on a week is too full for a student.
    """

    limit: int
    weeks: list[WeekLoad]
