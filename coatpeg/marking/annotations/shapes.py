"""Shapes of annotations."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from coatpeg.core.marking import annotations as core
from coatpeg.core.marking.quotes import Quote
from coatpeg.people.shapes import Shape

Place = Annotated[int, Field(ge=0, le=core.SCALE)]
AnnotationKind = Literal["comment", "highlight", "suggestion", "ink"]
Colour = Literal["", "rust", "sea", "plum"]


class QuoteShape(Shape):
    """Words with a little of what stands around them; from–to in characters, which the server fills in."""

    exact: str = Field(max_length=20_000)
    prefix: str = Field(default="", max_length=200)
    suffix: str = Field(default="", max_length=200)
    start: int = Field(default=0, ge=0, le=10_000_000)
    end: int = Field(default=0, ge=0, le=10_000_000)


class SpotShape(Shape):
    """A spot or a frame, in ten-thousandths of the width and height."""

    x: Place
    y: Place
    w: Place = 0
    h: Place = 0


class TargetShape(Shape):
    """What an annotation is on (``core.marking.annotations.Target``); nothing named: the whole."""

    pocket: int | None = None
    evidence: int | None = None
    part: Literal["text", "artefact"] | None = None
    words: QuoteShape | None = None
    spot: SpotShape | None = None
    page: int | None = Field(default=None, ge=1, le=9_999)
    row: int | None = None
    column: str | None = Field(default=None, max_length=36)
    at: float | None = Field(default=None, ge=0, le=1_000_000)
    until: float | None = Field(default=None, ge=0, le=1_000_000)

    def to_core(self) -> core.Target:
        """The same for the rules."""
        return core.Target(
            self.pocket,
            self.evidence,
            core.Part(self.part) if self.part else None,
            Quote(**self.words.model_dump()) if self.words else None,
            core.Spot(**self.spot.model_dump()) if self.spot else None,
            self.page,
            self.row,
            self.column,
            self.at,
            self.until,
        )


class StrokeShape(Shape):
    """A stroke of a pen: x, y and pressure (0–100) in turn."""

    colour: Literal["rust", "sea", "plum"]
    width: int = Field(ge=1, le=core.SCALE // 10)
    points: list[int] = Field(max_length=3 * 200_000)


class AnnotationIn(Shape):
    """What a marker says, and the version that the page saw (0: none yet)."""

    kind: AnnotationKind
    target: TargetShape = Field(default_factory=TargetShape)
    text: str = Field(default="", max_length=50_000)
    wording: str | None = Field(default=None, max_length=50_000)
    strokes: list[StrokeShape] = Field(default_factory=list, max_length=20_000)
    colour: Colour = ""
    criterion: str = Field(default="", max_length=36)
    version: int = Field(default=0, ge=0)


class AnswerShape(Shape):
    """An answer in a thread."""

    id: int
    who: str
    mine: bool
    at: datetime
    text: str


class AnnotationShape(Shape):
    """An annotation; ``shown``: its student sees it."""

    id: int
    key: str
    submission: int
    kind: AnnotationKind
    target: TargetShape
    text: str
    wording: str | None
    strokes: list[StrokeShape]
    colour: Colour
    criterion: str
    criterion_title: str
    """Of the rubric: whose level rests on what this is on."""
    voice: bool
    who: str
    mine: bool
    at: datetime
    version: int
    shown: bool
    settled_at: datetime | None
    settled_by: str
    done_at: datetime | None
    choice: Literal["", "taken", "left"]
    chosen_at: datetime | None
    answers: list[AnswerShape]


class AnswerIn(Shape):
    """What is answered."""

    text: str = Field(max_length=50_000)


class ThreadSettledIn(Shape):
    """Whether a thread is settled."""

    settled: bool


class DoneIn(Shape):
    """Whether what is said is mended."""

    done: bool


class WordingChoiceIn(Shape):
    """What the student does with a suggested wording."""

    choice: Literal["taken", "left"]


class SaidShownShape(Shape):
    """How much was shown."""

    count: int


class TakenInShape(Shape):
    """How many annotations of a file are new drafts, and what of it was not understood."""

    count: int
    notes: list[str]
