"""Shapes of the board, the list of hand-ins and caseloads."""

from __future__ import annotations

from datetime import date, datetime, time
from typing import Literal

from pydantic import Field

from coatpeg.handins.shapes import ChipShape, StatusWord, SubmissionLine
from coatpeg.people.shapes import AdjustmentShape, Face, Named, NamedFace, Shape
from coatpeg.portfolios.shapes import ArtefactShape

KindWord = Literal[
    "work",
    "handing",
    "marks",
    "comments",
    "reminders",
    "show",
    "asked",
    "own_dues",
    "cupboard",
    "adjustments",
    "template",
    "gallery",
    "roster",
    "lists",
    "staff",
    "calendar",
]
"""What an event is about (``events.kinds``)."""


class CellShape(Shape):
    """One student and hand-in; ``late_days`` are school days, ``came`` is the day of the newest submission."""

    status: StatusWord
    late: bool
    late_days: int
    overdue: bool
    came: date | None
    count: int
    due: date | None
    no_period: bool


class WeekShape(Shape):
    """A week of the rail."""

    number: int
    monday: date
    school_days: int


class ColumnShape(Shape):
    """A hand-in with its counts."""

    id: int
    title: str
    opens: date
    open: bool
    due: date | None
    due_time: time | None
    several_dues: bool
    points: float | None
    step: float
    pockets: list[int]
    sections: list[str]
    """Titles of the sections that its pockets lie in."""
    for_everyone: bool
    closes: date | None
    closed: bool
    asked: int
    in_: int = Field(alias="in", serialization_alias="in")
    to_mark: int
    accepted: int
    sent_back: int
    overdue: int


class FrameShape(Shape):
    """What the rail and the filters show."""

    today: date
    term: str
    weeks: list[WeekShape]
    handins: list[ColumnShape]
    sections: list[str]
    periods: list[str]
    groups: list[str]


class RowShape(Face):
    """A student on the board; cells stand in the order of the hand-ins."""

    groups: list[str]
    find: str
    joined: date
    left_on: date | None
    left: bool
    adjusted: bool
    """Whether something agreed with learning support holds today."""
    met: int
    wanted: int
    last_work: datetime | None
    quiet: bool
    quiet_days: int
    cells: list[int]


class BoardShape(FrameShape):
    """The pegs. ``changes_at`` is when a status next changes by itself.

    ``states`` are the different cells, each once; a student's ``cells`` are places among them.
    """

    students: list[RowShape]
    states: list[CellShape]
    changes_at: datetime | None
    counting: dict[str, list[StatusWord]]
    """Which statuses each count of a hand-in counts."""


class TableIn(Shape):
    """Which students and hand-ins, in which order, as what."""

    students: list[int] = Field(max_length=20_000)
    handins: list[int] = Field(max_length=1_000)
    format: Literal["csv", "xlsx", "ods"]


class ChangedRow(Shape):
    """A student's row as it is now, with those of its cells that may have changed, by hand-in."""

    id: int
    met: int
    wanted: int
    last_work: datetime | None
    quiet: bool
    quiet_days: int
    adjusted: bool
    cells: dict[str, CellShape]


class ChangesShape(Shape):
    """What was touched after a cursor: kinds of things, students, hand-ins, or the class as a whole (``everybody``).

    ``all_changed``: too much to list. ``board_anew``: the board is loaded anew; else ``rows`` are its changed rows,
    where they were asked for.
    """

    cursor: int
    all_changed: bool
    kinds: list[KindWord]
    enrolments: list[int]
    handins: list[int]
    everybody: bool
    board_anew: bool
    rows: list[ChangedRow]
    changes_at: datetime | None


class ReminderLine(Shape):
    """A reminder as it went to its student."""

    id: int
    at: datetime
    by: str
    text: str


class GlanceEvidence(Shape):
    """Evidence as the side panel shows it."""

    id: int
    text: str
    words: int
    artefact: ArtefactShape | None


class GlancePocket(Named):
    """A collected pocket as it is now."""

    chips: list[ChipShape]
    evidence: list[GlanceEvidence]
    rows: int


class OpenHandIn(Named):
    """A hand-in and the day it opens."""

    opens: date


class OpenedCell(CellShape):
    """One cell opened beside the board; ``at`` is when the newest submission counts as received."""

    at: datetime | None
    student: NamedFace
    portfolio: int
    handin: OpenHandIn
    due_at: datetime | None
    due_time: time | None
    due_source: Literal["own", "period", "class", "none", "no_period"]
    extra_days: int
    submissions: list[SubmissionLine]
    pockets: list[GlancePocket]


class AskedLine(CellShape):
    """A hand-in as one student stands to it; ``own_due``: staff gave them a date of their own."""

    id: int
    title: str
    opens: date
    own_due: bool


class AskedShape(Shape):
    """What a student of the class is asked for, and what not."""

    student: NamedFace
    joined: date
    asked: list[AskedLine]
    not_asked: list[AskedLine]


class PeriodShape(Shape):
    """A period by name."""

    id: int
    name: str


class PocketChoice(Named):
    """A pocket to choose."""

    section: str
    kind: str
    of_unit: bool
    """It was laid out for a unit of a section that repeats."""


class TakenAway(Named):
    """A hand-in that was taken away; what was handed in for it can still be read."""

    taken_away_at: datetime
    submissions_made: int


class DraftLine(Named):
    """A hand-in that only staff see yet; its pockets by title."""

    opens: date
    due: date | None
    due_time: time | None
    pockets: list[str]


class HandInsShape(FrameShape):
    """The hand-ins of a class, and what a new one can be made of."""

    pockets: list[PocketChoice]
    taken_away: list[TakenAway]
    drafts: list[DraftLine]
    all_periods: list[PeriodShape]
    all_groups: list[PeriodShape]
    may_set: bool


class InClassShape(Shape):
    """How a student of a caseload stands in one of their classes; ``overdue`` names the hand-ins."""

    group: int
    name: str
    enrolment: int
    portfolio: int
    waiting: int
    overdue: list[str]
    late: int
    moved: int
    met: int
    wanted: int
    quiet: bool


class DueThing(Shape):
    """What is due for a student on a day, in one of their classes."""

    day: date
    title: str
    class_name: str


class FullWeek(Shape):
    """A week from today on that is too full for a student, with all that is due for them in it."""

    monday: date
    due: list[DueThing]


class CaseloadStudent(Face):
    """A student of a caseload."""

    find: str
    classes: list[InClassShape]
    full_weeks: list[FullWeek]
    adjustments: list[AdjustmentShape]


class CaseloadShape(Shape):
    """A caseload."""

    today: date
    students: list[CaseloadStudent]
