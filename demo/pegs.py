"""Dealing peg pictures: each a plain line picture in one of eight tints, no pair twice in a class."""

from __future__ import annotations

import json
import random
from pathlib import Path

PICTURES: list[str] = json.loads(
    (Path(__file__).resolve().parents[1] / "frontend/src/ui/peg-pictures.json").read_text()
)
TINTS = 8


def deal(count: int, seed: int) -> list[tuple[str, int]]:
    """``count`` pairs of picture and tint; pictures repeat only when all have been dealt."""
    dealer = random.Random(seed)
    found: list[tuple[str, int]] = []
    while len(found) < count:
        round_ = len(found) // len(PICTURES)
        pictures = dealer.sample(PICTURES, len(PICTURES))
        found += [(picture, (place + round_) % TINTS) for place, picture in enumerate(sorted(pictures))]
        if round_ == 0:
            dealer.shuffle(found)
    return found[:count]
