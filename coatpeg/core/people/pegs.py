"""Dealing peg pictures: each a plain line picture in one of eight tints, no pair twice in a class as far as they reach.

Decided here: pictures come before tints, so that up to 112 students each have a picture of their own; when all
112 × 8 are dealt a new lap begins. What is taken stays where it is; what is free is dealt in an order drawn from a
seed.
"""

from __future__ import annotations

import random
from collections.abc import Iterable, Iterator
from typing import NamedTuple

_PICTURES = """
anchor apple backpack banana bean bell bike bird book-open brush bug bus cake camera candy car carrot castle cat
cherry chess-knight chess-rook citrus clapperboard cloud-sun clover compass cookie croissant cup-soda dices dog
donut drama drum egg feather fence fish flashlight flask-round flower-2 footprints gem gift glasses globe grape
guitar hammer headphones hop house ice-cream-cone key lamp landmark leaf lightbulb lollipop magnet map medal milk
moon mountain music nut origami paintbrush palette party-popper paw-print pencil piano pizza plane popcorn puzzle
rabbit radio rainbow ribbon rocket rose ruler sailboat salad sandwich scissors shell ship shovel shrimp shrub snail
snowflake soup spool sprout squirrel sun sunrise telescope tent toy-brick tractor train-front tree-deciduous trophy
turntable turtle
"""
PICTURES = tuple(_PICTURES.split())
"""Names in the icon set that the interface uses; the interface's own list is held equal by a test."""
TINTS = 8


class Peg(NamedTuple):
    """A picture in a tint; ``lap`` counts how often all of them have been dealt before."""

    picture: str
    tint: int
    lap: int = 0


def deal(count: int, taken: Iterable[Peg] = (), seed: int = 0) -> list[Peg]:
    """``count`` pegs that nobody has yet."""
    gone = set(taken)
    found: list[Peg] = []
    for peg in _in_order(gone, seed):
        if len(found) == count:
            break
        found.append(peg)
    return found


def _in_order(gone: set[Peg], seed: int) -> Iterator[Peg]:
    """Free pegs: first in pictures that nobody has in this lap, then in the next tint of each, lap after lap."""
    dealer = random.Random(seed)
    lap = 0
    while True:
        pictures = dealer.sample(PICTURES, len(PICTURES))
        used = {picture: sum(1 for one in gone if one.picture == picture and one.lap == lap) for picture in pictures}
        for round_ in range(TINTS):
            for place, picture in enumerate(pictures):
                if used[picture] > round_:
                    continue
                tint = next(
                    one
                    for one in ((place + round_ + step) % TINTS for step in range(TINTS))
                    if Peg(picture, one, lap) not in gone
                )
                gone.add(Peg(picture, tint, lap))
                used[picture] += 1
                yield Peg(picture, tint, lap)
        lap += 1
