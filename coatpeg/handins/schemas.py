"""Shapes of the board, the student's views and setting a hand-in."""

from __future__ import annotations

from datetime import date, datetime, time
from decimal import Decimal
from typing import Literal

from pydantic import Field

from coatpeg.people.schemas import AdjustmentShape, Face, KindWord, Named, NamedFace, Shape
from coatpeg.portfolios.schemas import ArtefactShape, CommentShape, CoverShape, LogShape, LoosePageLine, PocketFileShape

StatusWord = Literal["not_asked", "excused", "accepted", "sent_back", "handed_in", "not_open", "working", "empty"]


class StandingShape(Shape):
    """A status with its flags; ``late_days`` are school days."""

    status: StatusWord
    late: bool
    late_days: int
    late_seconds: int
    overdue: bool


class CellShape(StandingShape):
    """One student and hand-in."""

    at: datetime | None
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
    for_everyone: bool
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
    periods: list[str]
    groups: list[str]


class RowShape(Face):
    """A student on the board; cells stand in the order of the hand-ins."""

    groups: list[str]
    find: str
    left: bool
    met: int
    wanted: int
    last_work: datetime | None
    quiet: bool
    cells: list[CellShape]


class BoardShape(FrameShape):
    """The pegs. ``changes_at`` is when a status next changes by itself."""

    students: list[RowShape]
    changes_at: datetime | None


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


class SubmissionLine(Shape):
    """A submission in a list."""

    id: int
    number: int
    at: datetime
    receipt: str
    voided_at: datetime | None
    links: int
    empty: bool
    outcome: Literal["accepted", "sent_back"] | None
    outcome_at: datetime | None
    outcome_pockets: list[int]


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
    """One cell opened beside the board."""

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


class PocketLine(StandingShape):
    """A pocket in the student's list."""

    id: int
    title: str
    section: str
    kind: KindWord
    opens: date | None
    retired: bool
    met: int
    wanted: int
    locked: bool
    last_work: datetime | None
    due: date | None


class GroupShape(Shape):
    """A teaching group by name."""

    id: int
    name: str


class PortfolioShape(Shape):
    """A portfolio: its pockets and how far it is filled; ``since`` is when its reader of the staff looked before."""

    id: int
    student: NamedFace
    group: GroupShape
    mine: bool
    met: int
    wanted: int
    met_whole: int
    wanted_whole: int
    to_hand_in: int
    since: datetime | None
    cover: CoverShape
    pages: list[LoosePageLine]
    pockets: list[PocketLine]


class EvidenceShape(GlanceEvidence):
    """Evidence in an open pocket."""

    version: int
    sentences: int
    changed_at: datetime
    html: str
    unchanged: bool
    spoken: ArtefactShape | None


class HoldShape(Shape):
    """Why a pocket is locked."""

    handin: int
    title: str
    since: datetime


class StudentHandIn(StandingShape):
    """A hand-in as its student sees it. ``due_in`` counts school days from today to a
    due day that has not passed; ``due_again`` is the own due moment of a *sent back*.
    """

    id: int
    title: str
    points: float | None
    opens: date
    due: date | None
    due_time: time | None
    due_at: datetime | None
    extra_days: int
    due_in: int | None
    due_again: datetime | None
    count: int
    pockets: list[Named]
    submissions: list[SubmissionLine]


class OpenedPocket(Shape):
    """One pocket opened."""

    id: int
    title: str
    kind: KindWord
    directions: str
    """Rich text: sanitised HTML."""
    files: list[PocketFileShape]
    starters: int
    """How many starter files wait to be copied for the student who opens it."""
    version: str
    prompt: str
    starter: str
    measure: Literal["", "words", "sentences"]
    least: int
    most: int | None
    spoken: bool
    takes: list[str]
    excused: bool
    opens: date | None
    retired: bool
    locked_by: list[HoldShape]
    writable: bool
    chips: list[ChipShape]
    met: int
    wanted: int
    evidence: list[EvidenceShape]
    comments: list[CommentShape]
    log: LogShape | None
    handins: list[StudentHandIn]


class WantingPocket(Named):
    """A pocket with the chips of what is still wanted in it."""

    chips: list[ChipShape]


class WorkLine(StudentHandIn):
    """A hand-in in *To hand in*, with the pockets where something is still wanted."""

    wanting: list[WantingPocket]


class Worklist(Shape):
    """What to hand in, and the rest."""

    to_do: list[WorkLine]
    others: list[WorkLine]


class HandInPress(Shape):
    """Handing in: how many submissions the student saw, and whether an empty one is meant."""

    seen: int = Field(ge=0)
    even_if_empty: bool = False


class ExcuseIn(Shape):
    """Excuse, or end an excuse."""

    excused: bool


class PlanDue(Shape):
    """A due date with an optional time."""

    day: date
    at: time | None = None


class PeriodPlan(Shape):
    """A period's part in a plan."""

    period: int
    asked: bool = True
    due: PlanDue | None = None


class PlanIn(Shape):
    """A hand-in as it is filled in. ``periods`` may be left out; ``for_everyone`` ignores their *asked*."""

    title: str = Field(max_length=200)
    pockets: list[int] = Field(max_length=200)
    opens: date
    due: PlanDue | None = None
    for_everyone: bool = True
    periods: list[PeriodPlan] = Field(default_factory=list, max_length=100)
    points: Decimal | None = Field(default=None, max_digits=6, decimal_places=1)
    step: Decimal = Decimal(1)


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


class PeriodShape(Shape):
    """A period by name."""

    id: int
    name: str


class PocketChoice(Named):
    """A pocket to choose."""

    section: str


class HandInsShape(FrameShape):
    """The hand-ins of a class, and what a new one can be made of."""

    pockets: list[PocketChoice]
    all_periods: list[PeriodShape]
    may_set: bool


class OwnDueIn(Shape):
    """A student's own due date; None takes it away."""

    day: date | None
    at: time | None = None


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


class CaseloadStudent(Face):
    """A student of a caseload."""

    find: str
    classes: list[InClassShape]
    adjustments: list[AdjustmentShape]


class CaseloadShape(Shape):
    """A caseload."""

    today: date
    students: list[CaseloadStudent]
