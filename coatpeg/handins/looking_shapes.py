"""Shapes of looking in over a class, and of a student's news."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import Field

from coatpeg.people.schemas import Face, KindWord, Named, Shape
from coatpeg.portfolios.schemas import ArtefactShape


class NewsLine(Shape):
    """Something new: ``what`` happened to which hand-in, artefact or page, and where to look."""

    number: int
    what: Literal["sent_back", "accepted", "commented", "handin_set", "show_page_opened", "own_due_set"]
    at: datetime
    title: str
    pocket: int | None
    page: int | None
    new: bool


class NewsShape(Shape):
    """A student's news, newest first, and how much of it was not seen."""

    unseen: int
    lines: list[NewsLine]


class NewsSeenIn(Shape):
    """The number of the newest news that was seen."""

    number: int = Field(ge=0, le=2**31)


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
