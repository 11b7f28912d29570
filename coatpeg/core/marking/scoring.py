"""Marks: a score from a rubric, a late rule, and rounding.

Source: the product's *Marks*. All in decimal arithmetic; rounded half up, once, to the hand-in's
step. Decided here: with every criterion *not judged* there is no score; the late floor is a share
of the earned score, and a floor never raises a score. A score that a marker gives of their own, with a reason, stands
as it is given: nothing is taken from it for being late.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from coatpeg.core.errors import Invalid

STEPS = (Decimal("1"), Decimal("0.5"), Decimal("0.1"))


@dataclass(frozen=True, slots=True)
class Criterion:
    """A criterion with its weight, its highest level's points and the chosen level's (None: none yet)."""

    name: str
    weight: Decimal
    highest: Decimal
    chosen: Decimal | None = None
    not_judged: bool = False


@dataclass(frozen=True, slots=True)
class LateRule:
    """Per cent of the earned score taken per whole school day late, and the least share that is left."""

    per_day: Decimal
    floor: Decimal = Decimal(0)


@dataclass(frozen=True, slots=True)
class Score:
    """The score to show, and the part of it that the late rule took (already rounded away, shown apart)."""

    value: Decimal
    before_late: Decimal
    late_days: int = 0


def to_step(value: Decimal, step: Decimal) -> Decimal:
    """``value`` rounded half up to a multiple of ``step``."""
    return (value / step).quantize(Decimal(1), rounding=ROUND_HALF_UP) * step


def check_points(points: Decimal, step: Decimal) -> None:
    """Refuse points that are not a positive multiple of the step."""
    if step not in STEPS:
        raise Invalid(f"A step of {step} is not offered.", where="step", fix="Choose 1, 0.5 or 0.1.")
    if points <= 0 or points % step:
        raise Invalid(
            f"{points} points are not a whole number of steps of {step}.",
            where="points",
            fix=f"Give a multiple of {step} above 0.",
        )


def check_score(score: Decimal, points: Decimal, step: Decimal) -> Decimal:
    """A score given by hand: between 0 and the points, on the hand-in's step."""
    if not score.is_finite() or not 0 <= score <= points:
        raise Invalid(f"{score} is not between 0 and {points}.", where="score", fix=f"Give 0 to {points}.")
    if score % step:
        raise Invalid(
            f"{score} does not lie on this hand-in's step of {step}.",
            where="score",
            fix=f"Give {to_step(score, step)}, say.",
        )
    return score


def rubric_score(
    points: Decimal,
    criteria: Sequence[Criterion],
    step: Decimal,
    *,
    late_days: int = 0,
    late_rule: LateRule | None = None,
) -> Score | None:
    """Points × Σ(weight × level points) ÷ Σ(weight × highest level points); None where nothing is judged."""
    found = earned(points, criteria)
    return None if found is None else after_late(found, step, late_days, late_rule)


def earned(points: Decimal, criteria: Sequence[Criterion]) -> Decimal | None:
    """The same before anything is taken for being late, and not rounded."""
    open_names = [one.name for one in criteria if one.chosen is None and not one.not_judged]
    if open_names:
        raise Invalid(
            f"No level is chosen for {', '.join(open_names)}.",
            where="rubric",
            fix="Choose a level, or mark the criterion as not judged.",
        )
    judged = [one for one in criteria if not one.not_judged]
    highest = sum((one.weight * one.highest for one in judged), Decimal(0))
    if not highest:
        return None
    reached = sum((one.weight * (one.chosen or Decimal(0)) for one in judged), Decimal(0))
    return points * reached / highest


def after_late(score: Decimal, step: Decimal, late_days: int, rule: LateRule | None) -> Score:
    """An earned score, not rounded yet, after the late rule; rounded once."""
    if rule is None or late_days <= 0:
        return Score(to_step(score, step), to_step(score, step))
    share = max(Decimal(1) - rule.per_day * late_days / 100, rule.floor / 100, Decimal(0))
    return Score(to_step(score * min(share, Decimal(1)), step), to_step(score, step), late_days)


def check_late_rule(rule: LateRule) -> None:
    """Refuse a rule that takes nothing or more than all, or leaves more than all."""
    if not rule.per_day.is_finite() or not 0 < rule.per_day <= 100:
        raise Invalid(
            f"{rule.per_day} per cent a school day cannot be taken.", where="per_day", fix="Give 0.1 to 100 per cent."
        )
    if not rule.floor.is_finite() or not 0 <= rule.floor <= 100:
        raise Invalid(f"{rule.floor} per cent cannot be left.", where="floor", fix="Give 0 to 100 per cent.")
