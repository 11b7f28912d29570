"""Shapes of changing a hand-in."""

from __future__ import annotations

from datetime import date, time
from decimal import Decimal
from typing import Literal

from pydantic import Field

from coatpeg.handins.asked.shapes import ClosingWord, PlanIn, PreviewShape, WhomWord
from coatpeg.handins.shapes import RubricShape
from coatpeg.people.shapes import Day, Named, Shape
from coatpeg.portfolios.shapes import GivenFileShape

ScopeWord = Literal["one", "on", "all"]
"""Of a series: this one alone, from here on, or all of them."""


class ChangeIn(PlanIn):
    """A hand-in as it is to be, and which version of it was looked at."""

    version: int = Field(ge=1)
    scope: ScopeWord = "one"


class DueOut(Shape):
    """A due date with an optional time."""

    day: date
    at: time | None


class PeriodOut(Shape):
    """A period's part in a hand-in."""

    period: int
    asked: bool
    due: DueOut | None


class PlanShape(Shape):
    """A hand-in as it is filled in; ``submissions`` were made for it, void ones too."""

    id: int
    version: int
    title: str
    pockets: list[int]
    follows: bool
    anything: bool
    since_last: bool
    opens: date
    due: DueOut | None
    closes: DueOut | None
    for_everyone: bool
    periods: list[PeriodOut]
    points: Decimal | None
    step: Decimal
    rubric: RubricShape | None
    directions: str
    files: list[int]
    given: list[GivenFileShape]
    """What these files are."""
    model_answer: str
    model_from: date | None
    opens_again: bool
    again: bool
    take_back: bool
    draft: bool
    closing: ClosingWord
    whom: WhomWord
    groups: list[int]
    students: list[int]
    submissions: int
    series: str
    series_place: int
    others: int
    """So many others of its series there are; ``later`` of them come after it."""
    later: int


class MovesShape(Shape):
    """How many students a change moves, and where; ``kept`` have handed in, and what they gave stays."""

    newly_asked: int
    no_longer_asked: int
    dues_moved: int
    now_overdue: int
    no_longer_overdue: int
    now_late: int
    no_longer_late: int
    kept: int


class OwnDateShape(Shape):
    """A student whose own date is now earlier than the class's."""

    name: str
    day: date


class JudgedShape(Shape):
    """Students by name whose drafts move, or have criteria open; whose released marks would come out otherwise."""

    moves: list[str]
    open: list[str]
    released: list[str]


class HandInImpact(Shape):
    """What a change means; pockets by title."""

    preview: PreviewShape
    moves: MovesShape
    own_earlier: list[OwnDateShape]
    added: list[str]
    removed: list[str]
    scored: int
    judged: JudgedShape


class ChangedShape(Named):
    """A hand-in after a change, and what the change meant."""

    version: int
    impact: HandInImpact
    left: list[str]
    """Others of its series that are left alone, by title."""


class MoveOnIn(Shape):
    """From which day on, by how many school days, and whether in all one's classes."""

    first: Day
    days: int
    everywhere: bool = False
    only_look: bool = False


class LayOutIn(Shape):
    """From which class."""

    source: int
    only_look: bool = False


class LaidLineShape(Shape):
    """A hand-in of the other class; why it is left out, empty where it is laid out."""

    title: str
    opens: date
    due: date | None
    why: Literal["", "no_pocket", "here", "days"]


class LaidOutShape(Shape):
    """What is laid out and what is left out, in due order; the deed's name once it is done."""

    lines: list[LaidLineShape]
    deed: str


class TakenUpShape(Shape):
    """So many drafts are gone again; so many were set or changed since."""

    drafts: int
    left: int


class MovedLine(Shape):
    """One date that moves; ``whose`` names a period or a student where it is not the class's."""

    group: str
    title: str
    which: Literal["opens", "due", "closes", "period", "own"]
    whose: str
    day: date
    to: date
    beyond: bool
    """After the last term, where plain weekdays are counted."""
    off: bool
    """It lay on no school day."""


class MovedOnShape(Shape):
    """What moves, in the order of days; the deed's name once it is done."""

    lines: list[MovedLine]
    deed: str


class MovedBackShape(Shape):
    """So many dates are as before; so many were changed since."""

    dates: int
    left: int
