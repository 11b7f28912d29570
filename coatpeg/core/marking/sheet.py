"""Scores together: a student's total over the hand-ins of a class, and how the scores of a hand-in are spread.

``total`` = 100 × Σ(weight × score ÷ points) ÷ Σ(weight) over the results that count, in exact fractions, rounded half
up once to a tenth of a per cent (a weighted mean, common practice). Decided here:

* A hand-in that is given no weight of its own weighs what it has points: the total is then all points that were earned
÷ all that could be. A weight of nought leaves it out. * Only what is accepted with a score counts. Not marked yet,
sent back, not due yet, excused and not asked are each told apart and left out of both sums; *missing* (overdue with
nothing that stands) counts as nought only where the rule says so. * Of the best *n*, those with the highest share of
their points count; of alike ones the heavier, then the earlier. Whoever has fewer than *n* is measured by those. * A
score keeps the points that it was given out of, whatever the hand-in has later.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from enum import StrEnum
from fractions import Fraction

from coatpeg.core.errors import Invalid
from coatpeg.core.handins.standing import Standing, Status

HEAVIEST = Decimal(1000)
BARS = 10
"""Of a distribution: each stands for a tenth of the points, the last one with its upper end."""


class Kind(StrEnum):
    """What stands in one place of the sheet."""

    SCORED = "scored"
    NOT_MARKED = "not_marked"
    SENT_BACK = "sent_back"
    MISSING = "missing"
    NOT_DUE = "not_due"
    EXCUSED = "excused"
    NOT_ASKED = "not_asked"


@dataclass(frozen=True, slots=True)
class Result:
    """One student's result in a hand-in; the score that was released and out of how many, where there is one."""

    kind: Kind
    score: Decimal | None = None
    points: Decimal | None = None

    @property
    def share(self) -> Fraction | None:
        """Of the points, 0 to 1; None where it is not scored."""
        if self.kind is not Kind.SCORED or self.score is None or not self.points:
            return None
        return Fraction(self.score) / Fraction(self.points)


@dataclass(frozen=True, slots=True)
class Rule:
    """How totals are made: weights by hand-in, of how many the best count (None: all), whether missing is nought."""

    weights: Mapping[int, Decimal] = field(default_factory=dict)
    best: int | None = None
    missing_is_zero: bool = False

    def check(self, points: Mapping[int, Decimal]) -> None:
        """``Invalid`` where it cannot be meant for these hand-ins (id: points)."""
        for handin, weight in self.weights.items():
            if not weight.is_finite() or not 0 <= weight <= HEAVIEST:
                raise Invalid(
                    f"A weight of {weight} cannot be meant.", where=f"weights.{handin}", fix=f"Give 0 to {HEAVIEST}."
                )
        if points and not any(self.weight(one, of) for one, of in points.items()):
            raise Invalid(
                "Every weight is 0: nothing would count.", where="weights", fix="Give at least one hand-in a weight."
            )
        if self.best is not None and self.best < 1:
            raise Invalid("The best of none cannot be counted.", where="best", fix="Give 1 or more, or leave it empty.")

    def weight(self, handin: int, points: Decimal) -> Decimal:
        """What a hand-in weighs."""
        return self.weights.get(handin, points)


@dataclass(frozen=True, slots=True)
class Total:
    """A total in per cent (one decimal), and the hand-ins that it is made of; None where nothing counts yet."""

    value: Decimal | None
    counted: frozenset[int]


def result_of(standing: Standing, score: Decimal | None, points: Decimal | None) -> Result:
    """What stands in the sheet for a standing, with the score released for the newest submission, if any."""
    if standing.status is Status.ACCEPTED and score is not None and points:
        return Result(Kind.SCORED, score, points)
    if standing.status is Status.SENT_BACK:
        return Result(Kind.SENT_BACK, score, points)
    kinds = {
        Status.NOT_ASKED: Kind.NOT_ASKED,
        Status.EXCUSED: Kind.EXCUSED,
        Status.ACCEPTED: Kind.NOT_MARKED,
        Status.HANDED_IN: Kind.NOT_MARKED,
    }
    return Result(kinds.get(standing.status, Kind.MISSING if standing.overdue else Kind.NOT_DUE))


def total(results: Mapping[int, Result], points: Mapping[int, Decimal], rule: Rule) -> Total:
    """A student's total over their results (by hand-in; ``points`` in the sheet's order)."""
    found: list[tuple[Fraction, Fraction, int]] = []
    for handin, of in points.items():
        result, weight = results[handin], Fraction(rule.weight(handin, of))
        share = result.share
        if share is None and result.kind is Kind.MISSING and rule.missing_is_zero:
            share = Fraction(0)
        if share is not None and weight:
            found.append((share, weight, handin))
    if rule.best is not None:
        # Sorting keeps the order of alike ones.
        found = sorted(found, key=lambda one: (-one[0], -one[1]))[: rule.best]
    if not found:
        return Total(None, frozenset())
    weights = sum((weight for _, weight, _ in found), Fraction(0))
    value = sum((share * weight for share, weight, _ in found), Fraction(0)) / weights
    return Total(_tenths(100 * value), frozenset(handin for _, _, handin in found))


def _tenths(value: Fraction) -> Decimal:
    """Rounded half up to a tenth; nothing here is below nought."""
    return Decimal((value * 20 + 1) // 2).scaleb(-1)


def bars(shares: Iterable[Fraction]) -> list[int]:
    """How many scores lie in each tenth of the points."""
    found = [0] * BARS
    for share in shares:
        found[min(BARS - 1, int(share * BARS))] += 1
    return found


def moved(before: Sequence[Decimal | None], after: Sequence[Decimal | None]) -> list[Decimal | None]:
    """By how much each total would change under another rule; None where there is none before or after."""
    return [None if one is None or other is None else other - one for one, other in zip(before, after, strict=True)]
