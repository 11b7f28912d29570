"""Shapes of looking in over a class."""

from __future__ import annotations

from datetime import datetime

from coatpeg.people.shapes import Face, KindWord, Named, Shape
from coatpeg.portfolios.shapes import ArtefactShape


class PortfolioLine(Face):
    """A student's portfolio: when it was last worked in, and whether that is new to whoever asks."""

    portfolio: int
    last_work: datetime | None
    new: bool


class PocketOfStudent(Face):
    """One student's pocket in the grid: how far it is filled, and something to see of it."""

    portfolio: int
    met: int
    wanted: int
    begun: bool
    words: int
    artefacts: int
    rows: int
    last_work: datetime | None
    artefact: ArtefactShape | None
    text: str


class PocketGrid(Shape):
    """One pocket over the class, with the pockets to choose from."""

    pocket: Named
    kind: KindWord
    pockets: list[Named]
    students: list[PocketOfStudent]
