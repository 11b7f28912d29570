"""Shapes of the pile, the desk and feedback."""

from __future__ import annotations

from datetime import date, datetime, time
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from coatpeg.handins.many.shapes import ManyIn
from coatpeg.handins.shapes import ChipShape, LevelKey, RubricShape, StandingShape, SubmissionLine
from coatpeg.people.shapes import Day, Face, MateShape, Named, NamedFace, Shape
from coatpeg.portfolios.shapes import ArtefactShape, GivenFileShape, LogShape


class Waiting(StandingShape):
    """A submission on the pile."""

    submission: int
    at: datetime
    count: int
    group: int
    class_name: str
    """Over all classes only; of one class it is empty."""
    handin: Named
    student: Face
    agree: bool
    """Two have marked it independently: they agree now."""


class Pile(Shape):
    """The marking pile, oldest first, and how many this person marked today."""

    waiting: list[Waiting]
    marked_today: int
    pace: int | None
    """Seconds that one takes, as this person marks today; none where too few are marked."""


class FrozenEvidence(Shape):
    """Evidence as it was handed in."""

    id: int
    text: str
    version: int
    words: int
    sentences: int
    unchanged: bool
    artefact: ArtefactShape | None
    html: str = ""
    spoken: ArtefactShape | None = None
    by: MateShape | None = None
    """Who put it in, where somebody else of those who fill the pocket did."""


class FrozenPocket(Named):
    """A pocket as it was handed in, with its chips as they stood."""

    kind: str
    prompt: str
    chips: list[ChipShape]
    evidence: list[FrozenEvidence]
    log: LogShape | None
    before: int
    """So many rows of the log had been handed in before, and are no part of this."""
    version: str


class OutcomeShape(Shape):
    """An outcome with the mark released with it."""

    id: int
    kind: Literal["accepted", "sent_back"]
    at: datetime
    by: str
    pockets: list[int]
    due_again: datetime | None
    voided_at: datetime | None
    feedback: str
    score: float | None
    points: float | None
    """Out of how many it was scored."""
    earned: float | None
    """What was earned before anything was taken, or before the marker gave another score."""
    late_days: int
    """For so many school days late something was taken; 0: nothing was."""
    why: str
    """Why the marker gave another score than the rule makes."""
    apart: str
    """Why this one of several who handed in together was marked alone."""
    rubric: RubricShape | None
    """As it was then; none where nothing was judged by one."""
    levels: dict[str, list[str]]
    read_at: datetime | None
    """When the student first said that they have read it."""


class MarkedHandIn(Named):
    """A hand-in with its points and step."""

    points: float | None
    step: float
    taken_away: bool
    rubric: RubricShape | None
    model_answer: str
    """Rich text for whoever marks; to anybody else it is empty."""


class Draft(Shape):
    """A mark that is not released; of a rubric's levels those that it has still."""

    feedback: str
    score: float | None
    levels: dict[str, list[str]]
    own_score: float | None
    """Given against what the rule makes, for the reason ``why``."""
    why: str
    version: int
    goes_out: float | None
    """The score as it would be released now."""
    late_days: int
    """For so many school days late it takes something from the score; 0: nothing is taken."""


class MarkShape(Shape):
    """One of two independent marks, once both are done."""

    who: str
    mine: bool
    feedback: str
    score: float | None
    levels: dict[str, list[str]]


class TwoShape(Shape):
    """A submission that two mark independently."""

    done: bool
    """Whether one's own mark is done."""
    count: int
    """How many are."""
    alone: bool
    """Whether one may decide without the other, with a reason."""
    marks: list[MarkShape]
    """Both, once both are done, for who made them and for a lead."""


class SameFile(Shape):
    """An artefact that another student of the class brought in too."""

    title: str
    student: str


class SaidPart(Shape):
    """What one of a group says their part was, and whether they confirmed what all say."""

    name: str
    text: str
    confirmed: bool


class WithIt(Shape):
    """How many others handed it in by the same press: those that wait for a mark, and those that have one.

    ``names`` are those of all of them, where they are shown; ``with_outcome``: how many were decided in the same deed.
    """

    waiting: int
    decided: int
    names: list[str]
    with_outcome: int


class Desk(StandingShape):
    """One submission, whole."""

    id: int
    number: int
    at: datetime
    receipt: str
    voided_at: datetime | None
    newest: bool
    group: int
    handin: MarkedHandIn
    student: NamedFace
    due: date | None
    due_time: time | None
    due_at: datetime | None
    extra_days: int
    empty: bool
    links: int
    judged: dict[str, list[str]]
    """How the student judged themselves when they handed in; empty where they did not."""
    pockets: list[FrozenPocket]
    submissions: list[SubmissionLine]
    outcomes: list[OutcomeShape]
    draft: Draft | None
    two: TwoShape | None
    hidden: bool
    """Whose it is is not shown, until it is decided."""
    parts: list[SaidPart]
    """Who of a group did what, as they say."""
    with_it: WithIt | None
    """The others of a group who handed it in with this student; None where nobody did."""
    same_files: list[SameFile]


class MarkIn(Shape):
    """Feedback and score, and the version of the draft the marker saw."""

    feedback: str = ""
    score: Decimal | None = Field(default=None, max_digits=7, decimal_places=2)
    levels: dict[LevelKey, Annotated[list[LevelKey], Field(max_length=2)]] = Field(default_factory=dict, max_length=100)
    """By the rubric: for each criterion the level, the two that it lies between, or nothing: not judged."""
    own_score: Decimal | None = Field(default=None, max_digits=7, decimal_places=2)
    """Another score than the rule makes; needs a reason once it is released."""
    why: str = Field(default="", max_length=2_000)
    version: int = Field(default=0, ge=0)


class AgreedIn(MarkIn):
    """The same, where two marked independently; ``alone``: why one decides without the other."""

    alone: str = Field(default="", max_length=2_000)
    for_all: bool = True
    """Also for the others who handed it in by the same press."""
    apart: str = Field(default="", max_length=2_000)
    """Why this one of several is marked alone."""


class SendBackIn(AgreedIn):
    """The same with the pockets to open (none: all) and a new due date."""

    pockets: list[int] = Field(default_factory=list, max_length=200)
    due_again: Day | None = None


class ReviewedShape(Shape):
    """What an outcome did; ``released`` names other hand-ins whose locks it opened.

    ``also``: the submissions of the others who handed it in together, which were given the same.
    """

    outcome: int
    released: list[str]
    also: list[int]


class FeedbackLine(OutcomeShape):
    """An outcome as its student reads it."""

    submission: int
    number: int
    receipt: str
    judged: dict[str, list[str]]
    """How they judged themselves."""
    handin: Named
    pocket: int | None


class HistoryEntry(Shape):
    """Something that happened to a student's hand-in: the verb of the record, who did it, which submission."""

    at: datetime
    what: Literal[
        "handed_in",
        "taken_back",
        "accepted",
        "sent_back",
        "reopened",
        "excused",
        "unexcused",
        "mark_released",
        "feedback_read",
        "annotations_shown",
        "annotation_removed",
        "annotation_restored",
        "annotation_ticked",
        "answered",
        "answer_removed",
        "answer_restored",
        "thread_settled",
        "thread_reopened",
        "wording_chosen",
        "own_due_set",
        "mark_done",
        "reminded",
        "handin_set",
        "handin_changed",
        "handin_closed",
        "handin_came_due",
        "handin_taken_away",
        "handin_brought_back",
    ]
    who: str
    number: int | None
    text: str
    score: float | None
    points: float | None


class GivenPocket(Named):
    """What a student was given to begin with in a pocket: a starter's rich text, and files."""

    starter: str
    files: list[GivenFileShape]


class ChangedPart(Shape):
    """Words that are the same, new, or gone."""

    what: Literal["same", "new", "gone"]
    text: str


class ChangedCell(Shape):
    """A cell of a log's row, as it was and as it is."""

    title: str
    was: str
    now: str


class DifferenceShape(Shape):
    """A piece of the work that changed (``core.marking.differences.Difference``)."""

    pocket: Named
    what: Literal["new", "gone", "replaced", "words", "row"]
    piece: str
    evidence: int | None
    row: int | None
    parts: list[ChangedPart]
    cells: list[ChangedCell]
    new_words: int
    gone_words: int


class DifferencesShape(Shape):
    """What changed since the submission of that number; none: it is the first."""

    since: int | None
    changed: list[DifferenceShape]


class AcceptManyIn(ManyIn):
    """Words to all."""

    feedback: str = Field(default="", max_length=1_000_000)


class SendBackManyIn(ManyIn):
    """Words to all, and by when they hand in again."""

    feedback: str = Field(default="", max_length=1_000_000)
    due_again: Day | None = None


class ReleaseIn(Shape):
    """With ``only_look`` it is said what would be released."""

    only_look: bool = False


class DraftedShape(Shape):
    """So many complete drafts of one's own, whose are not complete; the deed's name once they are released."""

    count: int
    incomplete: list[str]
    deed: str


class ResultsIn(Shape):
    """The students (enrolments) and hand-ins that are shown."""

    students: list[int] = Field(max_length=5_000)
    handins: list[int] = Field(max_length=500)


class FiguresRow(Shape):
    """A student (enrolment) with a number for each hand-in; none where there is none."""

    id: int
    figures: list[float | None]


class FlaggedShape(Shape):
    """A peg with what staff should look at: an unchanged starter, the same file as somebody else's, nothing at all."""

    handin: int
    enrolment: int
    flags: list[Literal["starter", "same", "empty"]]


class FiguresShape(Shape):
    """A number for each peg; ``handins`` says in which order."""

    handins: list[int]
    rows: list[FiguresRow]
