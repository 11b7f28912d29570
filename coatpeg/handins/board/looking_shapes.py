"""Shapes of looking in over a class."""

from __future__ import annotations

from datetime import datetime

from pydantic import Field

from coatpeg.people.shapes import Face, KindWord, Named, Shape
from coatpeg.portfolios.shapes import ArtefactShape, LogAdded, LogOfChoice, LogSettings, LogWeek


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
    locked: bool
    opened: bool
    """Of what was given out to them in it, they have opened something."""
    given: bool
    """Something was given out to them in it."""
    words: int
    artefacts: int
    rows: int
    last_work: datetime | None
    artefact: ArtefactShape | None
    text: str
    together: str
    """The same word for all who see the same there, since they fill it together; empty where it is their own."""


class OwnPageOfStudent(Face):
    """A page that a student made by themselves."""

    portfolio: int
    page: Named
    words: int
    text: str
    last_work: datetime
    together: str
    """The same word for all who fill it together; empty where it is one student's."""


class OwnPagesOfClass(Shape):
    """The pages of their own of all students, with the pockets to choose from."""

    pages: list[OwnPageOfStudent]
    pockets: list[Named]


class ClassLogIn(Shape):
    """Which rows of the class's log, in which order: ``by`` a column's key, *student*, or as the log stands."""

    period: str = Field(default="", max_length=100)
    student: int | None = None
    words: str = Field(default="", max_length=100)
    by: str = Field(default="", max_length=40)
    descending: bool = False


class ClassLogRow(Shape):
    """A row of the class's log; what it names is told by its title."""

    id: int
    student: int
    values: dict[str, str | bool | int]
    complete: bool


class ClassLogStudent(Face, LogAdded):
    """A student with their complete rows among those wanted, added up."""

    portfolio: int


class ClassLogShape(LogSettings):
    """A log over the class: one page of rows in order; sums over all that are wanted. ``found`` counts these."""

    pocket: Named
    found: int
    rows: list[ClassLogRow]
    students: list[ClassLogStudent]
    total: LogAdded
    weeks: list[LogWeek]
    of_choices: list[LogOfChoice]


class PocketGrid(Shape):
    """One pocket over the class, with the pockets to choose from."""

    pocket: Named
    kind: KindWord
    pockets: list[Named]
    students: list[PocketOfStudent]
