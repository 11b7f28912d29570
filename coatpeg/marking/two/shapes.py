"""Shapes of how a hand-in is marked, and how far its markers agree."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from coatpeg.marking.shapes import Waiting
from coatpeg.people.shapes import Named, Shape


class AgreementShape(Shape):
    """How far markers agree (``core.marking.agreement.Agreement``); nothing where there are too few, or none."""

    units: int
    pairs: int
    exact: float | None
    adjacent: float | None
    kappa: float | None
    linear: float | None
    quadratic: float | None
    alpha: float | None
    low: float | None
    high: float | None


class CriterionAgreement(AgreementShape):
    """The same of one criterion."""

    title: str


class HowMarkedShape(Shape):
    """How a hand-in is marked, and how far its markers agree."""

    handin: Named
    two: bool
    blind: bool
    version: int
    markers: list[str]
    criteria: list[CriterionAgreement]
    whole: AgreementShape | None


class HowMarkedIn(Shape):
    """How it is to be marked, and the version that was seen."""

    two: bool
    blind: bool
    version: int = Field(ge=0)


class RuledShape(Shape):
    """How it is marked now."""

    two: bool
    blind: bool
    version: int


class MarkDoneIn(Shape):
    """Whether one's own mark is done, and the version of it that was seen."""

    done: bool
    version: int = Field(default=0, ge=0)


class MarkDoneShape(Shape):
    """Whether it is."""

    done: bool


class SampledShape(Shape):
    """A marked submission of a sample, and why it is in it."""

    submission: int
    why: Literal["top", "middle", "bottom", "borderline", "marker"]
    student: str
    score: float
    points: float
    by: str
    line: Waiting
    """As it stands in a pile of its own."""


class OpenIn(Shape):
    """What one has open."""

    submission: int | None = None


class OpenShape(Shape):
    """What another marker has open."""

    submission: int
    who: str
