"""Shapes of acting on many."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from coatpeg.handins.shapes import StatusWord
from coatpeg.people.shapes import Clock, Day, Shape

MOST = 20_000
"""Cells in one deed: ten hand-ins of the largest class there may be."""

WhyWord = Literal[
    "gone",
    "changed",
    "not_asked",
    "excused",
    "not_excused",
    "no_due",
    "before_opening",
    "already",
    "not_open",
    "not_handed_in",
    "not_decided",
    "by_rubric",
    "by_two",
]


class ChosenCellIn(Shape):
    """A cell as it was chosen."""

    handin: int
    enrolment: int
    status: StatusWord


class ManyIn(Shape):
    """The chosen cells; with ``only_look`` it is said what would be done."""

    cells: list[ChosenCellIn] = Field(min_length=1, max_length=MOST)
    only_look: bool = False


class ExcuseManyIn(ManyIn):
    """Excuse all of them, or end their excuses."""

    excused: bool = True


class MoveManyIn(ManyIn):
    """By so many school days, or to a day with an optional time."""

    days: int = Field(default=0, ge=0)
    day: Day | None = None
    at: Clock | None = None


class LockIn(Shape):
    """Lock or open; why, in a few words."""

    locked: bool = True
    reason: str = Field(default="", max_length=1_000)


class LockManyIn(ManyIn, LockIn):
    """What chosen cells collect."""


class LockPocketIn(LockIn):
    """One pocket, of some students (enrolments) or of everybody."""

    students: list[int] | None = Field(default=None, min_length=1, max_length=5_000)
    only_look: bool = False


class HandInForIn(ManyIn):
    """When the work was received (None: now) and how it came."""

    day: Day | None = None
    at: Clock | None = None
    how: Literal["paper", "mail", "other"] = "paper"


class LeftShape(Shape):
    """Cells left alone for one reason; the first of them by name."""

    why: WhyWord
    cells: int
    names: list[str]


class TouchedShape(Shape):
    """What was done, or would be."""

    cells: int
    students: int
    left: list[LeftShape]


class DeedShape(TouchedShape):
    """The same with the deed's name, by which it can be undone."""

    deed: str


class LockedShape(DeedShape):
    """Of the pockets that are opened, so many were handed in."""

    handed_in: int


class UndoneShape(Shape):
    """So many students are as before; so many are left as they are, since something has happened since."""

    students: int
    left: int


class BeforeShape(Shape):
    """A student's own due date before a deed."""

    handin: int
    enrolment: int
    day: Day | None
    at: Clock | None


class MovedManyShape(TouchedShape):
    """The same with what was before, for the undo."""

    before: list[BeforeShape]


class RestoreIn(Shape):
    """Own due dates as they were."""

    before: list[BeforeShape] = Field(min_length=1, max_length=MOST)


class RestoredShape(Shape):
    """How many were put back."""

    cells: int
