"""The rubric of the demo, and how its teacher judges by it."""

from __future__ import annotations

import random
from decimal import Decimal

from coatpeg.core.marking.rubrics import Level, Row, Rubric

_LEVELS = ("not yet", "partly", "mostly", "fully")
_CRITERIA = (
    (
        "Scaling up",
        3,
        ("One amount is missing", "Some amounts fit", "All amounts fit but one", "Every amount fits 40 plates"),
    ),
    (
        "Costing",
        2,
        ("No prices yet", "Prices, but no sum", "A sum with a slip in it", "Right to the penny, with where from"),
    ),
    ("Written so that others can cook it", 1, ("", "Steps are missing", "In order", "In order, and what can go wrong")),
)

RECIPE = Rubric(
    tuple(Level(f"level-{at}", title, Decimal(at)) for at, title in enumerate(_LEVELS)),
    tuple(Row(f"row-{at}", title, Decimal(weight), says) for at, (title, weight, says) in enumerate(_CRITERIA)),
    by_student=True,
)


def judged(rubric: Rubric, share: float, dealer: random.Random) -> dict[str, list[str]]:
    """A level for each criterion, about as good as ``share`` says."""
    best = len(rubric.levels) - 1
    places = {row.key: round(share * best + dealer.uniform(-0.6, 0.6)) for row in rubric.rows}
    return {key: [rubric.levels[min(best, max(0, at))].key] for key, at in places.items()}
