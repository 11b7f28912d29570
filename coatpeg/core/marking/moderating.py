"""A sample of marked work to be looked at once more by somebody else.

Common practice of moderation: some of the best, of the middle and of the weakest work, what lies at a border between
them, and of each marker at least one. Decided here: the work is ordered by its share of the points and divided into
thirds; *borderline* is the tenth of the work (at least one piece) that lies nearest to either border. A sample takes
turns over top, middle, bottom and borderline, each shuffled by the seed, then adds one piece of each marker who is not
in it yet; the same marks and the same seed give the same sample.
"""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum


class Stratum(StrEnum):
    """Why a piece of work is in a sample."""

    TOP = "top"
    MIDDLE = "middle"
    BOTTOM = "bottom"
    BORDERLINE = "borderline"
    MARKER = "marker"


@dataclass(frozen=True, slots=True)
class Marked:
    """A piece of marked work: its share of the points (0 to 1), and who marked it."""

    submission: int
    share: float
    marker: int


def sample(marked: Sequence[Marked], size: int, seed: int) -> list[tuple[int, Stratum]]:
    """So many pieces of work (all, where there are no more), each with why, in the order in which they were drawn."""
    strata = _strata(sorted(marked, key=lambda one: (-one.share, one.submission)))
    dealer = random.Random(seed)
    for pieces in strata.values():
        dealer.shuffle(pieces)
    chosen: dict[int, Stratum] = {}
    while len(chosen) < min(size, len(marked)):
        for stratum, pieces in strata.items():
            left = [one for one in pieces if one.submission not in chosen]
            if left and len(chosen) < size:
                chosen[left[0].submission] = stratum
    markers = {one.marker for one in marked if one.submission in chosen}
    for one in dealer.sample(sorted(marked, key=lambda one: one.submission), len(marked)):
        if one.marker not in markers:
            markers.add(one.marker)
            chosen[one.submission] = Stratum.MARKER
    return list(chosen.items())


def _strata(ordered: list[Marked]) -> dict[Stratum, list[Marked]]:
    count = len(ordered)
    first, second = round(count / 3), round(2 * count / 3)
    near = max(1, round(count / 10)) if count else 0
    borders = [(ordered[at - 1].share + ordered[at].share) / 2 for at in (first, second) if 0 < at < count]
    by_border = sorted(ordered, key=lambda one: min((abs(one.share - at) for at in borders), default=0.0))
    return {
        Stratum.TOP: ordered[:first],
        Stratum.MIDDLE: ordered[first:second],
        Stratum.BOTTOM: ordered[second:],
        Stratum.BORDERLINE: by_border[:near],
    }
