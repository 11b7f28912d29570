"""How far markers agree who mark the same work independently.

Sources: Cohen's kappa (J. Cohen, "A coefficient of agreement for nominal scales", Educational and Psychological
Measurement 20, 1960), with weights (J. Cohen, "Weighted kappa", Psychological Bulletin 70, 1968; linear and quadratic
disagreement over the order of the categories); Krippendorff's alpha by the coincidence matrix, for any number of
markers and for missing marks (K. Krippendorff, "Computing Krippendorff's Alpha-Reliability", 2011), with the ordinal
or the interval difference; intervals by the percentile bootstrap over submissions (B. Efron, R. Tibshirani, "An
Introduction to the Bootstrap", 1993). Decided here:

* A category is a place in the order of what can be given (levels, halves between them; or steps of the score).
  *Adjacent* is the next place or the same.
* Kappa is of two markers, of all work that both marked; with more than two, alpha alone.
* Below `TOO_FEW` pairs nothing is said but the counts.
* Where everything given is in one category, neither kappa nor alpha is defined: None.
"""

from __future__ import annotations

import random
from collections import Counter, defaultdict
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

TOO_FEW = 10
"""Pairs below which a coefficient would say more than is known."""
TIMES = 500
"""Resamples of the bootstrap."""
COVERED = 0.95

Unit = Mapping[int, int]
"""One piece of work: the category that each marker (by id) gave it; who gave none is not in it."""
Weights = Callable[[int, int], float]
"""How much two categories disagree; 0 where they are the same."""


def nominal(a: int, b: int) -> float:
    """Any difference counts the same."""
    return float(a != b)


def linear(a: int, b: int) -> float:
    """By how many places they differ."""
    return float(abs(a - b))


def quadratic(a: int, b: int) -> float:
    """By the square of it."""
    return float((a - b) ** 2)


def kappa(pairs: Sequence[tuple[int, int]], weights: Weights = nominal) -> float | None:
    """Cohen's kappa of two markers; None where it is not defined."""
    if not pairs:
        return None
    first, second = Counter(a for a, _ in pairs), Counter(b for _, b in pairs)
    observed = sum(weights(a, b) for a, b in pairs) / len(pairs)
    expected = sum(weights(a, b) * n * m for a, n in first.items() for b, m in second.items()) / len(pairs) ** 2
    return 1 - observed / expected if expected else None


def alpha(units: Sequence[Unit], metric: Literal["nominal", "ordinal", "interval"] = "ordinal") -> float | None:
    """Krippendorff's alpha of any number of markers, some marks missing; None where it is not defined."""
    coincidences: dict[tuple[int, int], float] = defaultdict(float)
    for unit in units:
        values = list(unit.values())
        for at, a in enumerate(values):
            for b in values[:at] + values[at + 1 :]:
                coincidences[a, b] += 1 / (len(values) - 1)
    totals: dict[int, float] = defaultdict(float)
    for (a, _), count in coincidences.items():
        totals[a] += count
    whole = sum(totals.values())
    if whole <= 1:
        return None
    differ = _difference(metric, totals)
    observed = sum(count * differ(a, b) for (a, b), count in coincidences.items())
    expected = sum(n * m * differ(a, b) for a, n in totals.items() for b, m in totals.items()) / (whole - 1)
    return 1 - observed / expected if expected else None


def _difference(metric: str, totals: Mapping[int, float]) -> Weights:
    if metric == "nominal":
        return nominal
    if metric == "interval":
        return quadratic
    running, below = 0.0, {}
    for value in sorted(totals):
        below[value] = running + totals[value] / 2
        running += totals[value]
    # From the middle of one category to the middle of the other, squared.
    return lambda a, b: (below[a] - below[b]) ** 2


@dataclass(frozen=True, slots=True)
class Agreement:
    """How far markers agree on one criterion, or on the whole."""

    units: int
    """Pieces of work that at least two marked."""
    pairs: int
    """Pairs of marks of the same work."""
    exact: float | None
    adjacent: float | None
    """Shares of the pairs."""
    kappa: float | None
    linear: float | None
    quadratic: float | None
    alpha: float | None
    low: float | None
    high: float | None
    """An interval that covers 95 % by the bootstrap: of the quadratic kappa, else of alpha."""


def agreement(units: Sequence[Unit], metric: Literal["ordinal", "interval"] = "ordinal", *, seed: int = 0) -> Agreement:
    """All of it, of pieces of work in their order; the same marks and seed give the same interval."""
    marked = [unit for unit in units if len(unit) > 1]
    pairs = [pair for unit in marked for pair in combinations([unit[key] for key in sorted(unit)], 2)]
    exact = sum(a == b for a, b in pairs) / len(pairs) if pairs else None
    adjacent = sum(abs(a - b) <= 1 for a, b in pairs) / len(pairs) if pairs else None
    if len(pairs) < TOO_FEW:
        return Agreement(len(marked), len(pairs), exact, adjacent, None, None, None, None, None, None)
    two = len({marker for unit in marked for marker in unit}) == 2
    low, high = _interval(marked, _quadratic_kappa if two else lambda some: alpha(some, metric), seed)
    return Agreement(
        len(marked),
        len(pairs),
        exact,
        adjacent,
        kappa(pairs) if two else None,
        kappa(pairs, linear) if two else None,
        kappa(pairs, quadratic) if two else None,
        alpha(marked, metric),
        low,
        high,
    )


def _quadratic_kappa(units: Sequence[Unit]) -> float | None:
    return kappa([(unit[a], unit[b]) for unit in units for a, b in [sorted(unit)]], quadratic)


def _interval(
    units: Sequence[Unit], of: Callable[[Sequence[Unit]], float | None], seed: int
) -> tuple[float | None, float | None]:
    """The percentile interval of a coefficient; resamples in which it is not defined are left out."""
    dealer = random.Random(seed)
    found = sorted(one for _ in range(TIMES) if (one := of(dealer.choices(units, k=len(units)))) is not None)
    if len(found) < TIMES // 2:
        return None, None
    return percentile(found, (1 - COVERED) / 2), percentile(found, (1 + COVERED) / 2)


def percentile(ordered: Sequence[float], share: float) -> float:
    """A percentile of ordered numbers, between two of them in proportion (numpy's usual way)."""
    at = share * (len(ordered) - 1)
    below = int(at)
    above = min(below + 1, len(ordered) - 1)
    return ordered[below] + (ordered[above] - ordered[below]) * (at - below)
