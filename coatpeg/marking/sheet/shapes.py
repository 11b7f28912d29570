"""Shapes of the sheet of scores."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from coatpeg.handins.board.shapes import TableIn
from coatpeg.people.shapes import Named, Shape

Kind = Literal["scored", "not_marked", "sent_back", "missing", "not_due", "excused", "not_asked"]


class CriterionSpread(Shape):
    """A criterion: how many were judged to each level (who lies between two counts half for each), how many not."""

    title: str
    counts: list[float]
    not_judged: int


class SheetColumn(Named):
    """A hand-in with points: what it weighs, and how its scores are spread, in per cent of the points."""

    points: float
    weight: float
    own_weight: bool
    """Whether it was given one; else it weighs its points."""
    scored: int
    bars: list[int]
    """How many scores lie in each tenth of the points."""
    low: float | None
    middle: float | None
    high: float | None
    levels: list[str]
    """Of its rubric, in their order; none where it has none, or nothing is judged by it yet."""
    criteria: list[CriterionSpread]


class SheetRow(Shape):
    """A student (enrolment): a kind and a score for each column, the total in per cent, and what it is made of."""

    id: int
    kinds: list[Kind]
    scores: list[float | None]
    total: float | None
    counted: list[bool]


class SheetShape(Shape):
    """The sheet, and the rule that its totals are made by."""

    handins: list[SheetColumn]
    rows: list[SheetRow]
    best: int | None
    missing_is_zero: bool
    version: int


Weight = Annotated[Decimal, Field(max_digits=8, decimal_places=2)]


class RuleIn(Shape):
    """A rule; a hand-in without a weight weighs its points."""

    weights: dict[int, Weight] = Field(default_factory=dict, max_length=1_000)
    best: int | None = Field(default=None, ge=-1_000, le=1_000)
    missing_is_zero: bool = False


class ChangeRuleIn(RuleIn):
    """The same to be kept, and the version that was seen."""

    version: int = Field(default=0, ge=0)


class SheetTableIn(TableIn):
    """The students and hand-ins that are shown, and the format."""
