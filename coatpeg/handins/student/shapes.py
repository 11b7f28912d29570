"""Shapes of a student's views."""

from __future__ import annotations

from datetime import date, datetime, time
from typing import Literal

from pydantic import Field

from coatpeg.handins.board.shapes import GlanceEvidence, ReminderLine
from coatpeg.handins.shapes import ChipShape, RubricShape, StandingShape, SubmissionLine
from coatpeg.people.shapes import KindWord, MateShape, MayWord, Named, NamedFace, Shape
from coatpeg.portfolios.shapes import ArtefactShape, CommentShape, CoverShape, GivenFileShape, LogShape, LoosePageLine


class PocketLine(StandingShape):
    """A pocket in the student's list."""

    id: int
    title: str
    section: str
    section_id: int
    kind: KindWord
    opens: date | None
    retired: bool
    met: int
    wanted: int
    locked: bool
    last_work: datetime | None
    due: date | None
    together: list[MateShape]
    """With whom it is filled: some of them; empty where it is one student's own."""


class SectionLine(Shape):
    """A section of a portfolio: how far it is filled as of today, and whether a pocket of it waits to be handed in."""

    id: int
    title: str
    met: int
    wanted: int
    waits: bool


class GroupShape(Shape):
    """A teaching group by name."""

    id: int
    name: str


class ChoosableGroup(Shape):
    """A group that a student may choose, with who is in it."""

    id: int
    name: str
    mine: bool
    members: list[MateShape]


class GroupChoice(Shape):
    """A set of groups in which a student chooses one until a day; ``most`` fit into each."""

    id: int
    name: str
    until: date
    most: int
    groups: list[ChoosableGroup]


class PortfolioShape(Shape):
    """A portfolio: its pockets and how far it is filled; ``since`` is when its reader of the staff looked before."""

    id: int
    student: NamedFace
    group: GroupShape
    mine: bool
    may: list[MayWord]
    """What this person may do with it."""
    met: int
    wanted: int
    met_whole: int
    wanted_whole: int
    to_hand_in: int
    since: datetime | None
    cover: CoverShape
    pages: list[LoosePageLine]
    begins_together: bool
    """Its student may begin pages with classmates."""
    choices: list[GroupChoice]
    """Groups that its student chooses now."""
    sections: list[SectionLine]
    """Those of the pockets, in their order."""
    pockets: list[PocketLine]


class EvidenceShape(GlanceEvidence):
    """Evidence in an open pocket."""

    version: int
    sentences: int
    changed_at: datetime
    html: str
    unchanged: bool
    spoken: ArtefactShape | None
    copy_of: str
    """What in the cupboard it is a copy of; empty where it is none."""
    by: MateShape | None
    """Who put it in, where somebody else did: only they change it."""


class HoldShape(Shape):
    """Why a pocket is locked."""

    handin: int
    """0 where staff locked it themselves."""
    title: str
    since: datetime
    by: str
    reason: str


class WantingPocket(Named):
    """A pocket with the chips of what is still wanted in it; of a log, how many rows are not finished.

    ``columns`` are the headings that are still to be written in these rows.
    """

    chips: list[ChipShape]
    rows: int
    columns: list[str]


class CollectedPocket(Named):
    """A pocket that a hand-in collects. ``then`` says what becomes of it as it is handed in, beside being frozen.

    It is locked, or the rows that are in it; it stays open until it is due; it is held already.
    """

    then: Literal["locked", "rows", "new_rows", "open", "held"]


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
    closes: date | None
    closes_time: time | None
    closed: bool
    again: bool
    """Whether what stands handed in may be handed in once more."""
    stays_open: bool
    """Whether its pockets stay open after handing in, until it is due."""
    take_back: bool
    """Whether they may take back what stands handed in, or would be handed in now."""
    directions: str
    files: list[GivenFileShape]
    """Pictures and files beside its directions."""
    model_answer: str
    """Empty until the day from which students see it."""
    rubric: RubricShape | None
    """What it is judged by; they see it from the start."""
    together: int
    """For how many one press hands in what they fill together; 0: for this student alone."""
    count: int
    pockets: list[CollectedPocket]
    """Every pocket that it collects."""
    wanting: list[WantingPocket]
    """Those of them in which something is still wanted, while it is to be handed in."""
    submissions: list[SubmissionLine]


class PartShape(MateShape):
    """What one of those says who hand it in together; ``confirmed``: they say that what all say is right."""

    mine: bool
    text: str
    confirmed: bool


class PartsShape(Shape):
    """What all of them say, with one's own part and the version it has; ``seal`` names just that."""

    mine: str
    version: int
    may_write: bool
    seal: str
    parts: list[PartShape]


class PartIn(Shape):
    """One's own part, and the version that was seen."""

    text: str = Field(max_length=40_000)
    version: int = Field(default=0, ge=0)


class ConfirmPartsIn(Shape):
    """What was seen and is right."""

    seal: str = Field(max_length=64)


class OpenedPocket(Shape):
    """One pocket opened."""

    id: int
    title: str
    kind: KindWord
    directions: str
    """Rich text: sanitised HTML."""
    files: list[GivenFileShape]
    starters: int
    unopened: int
    """Copies from the cupboard that its student has not seen here yet, or of which a newer one waits."""
    """How many starter files wait to be copied for the student who opens it."""
    version: str
    prompt: str
    starter: str
    measure: Literal["", "words", "sentences"]
    least: int
    most: int | None
    spoken: bool
    shared: Literal["", "group", "period", "class"]
    own_part: bool
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


class ElsewhereLine(StudentHandIn):
    """Something to hand in of another class."""

    group: Named
    portfolio: int


class Worklist(Shape):
    """What to hand in, and the rest."""

    to_do: list[StudentHandIn]
    reminders: list[ReminderLine]
    """At most one: the newest of which anything still waits."""
    others: list[StudentHandIn]
    elsewhere: list[ElsewhereLine]
    """What waits in the student's other classes, in one order."""


class FeedShape(Shape):
    """A calendar address: whole once, when it is made; later only since when it works."""

    address: str | None
    since: datetime | None
