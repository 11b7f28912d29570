"""Shapes of the cupboard."""

from __future__ import annotations

from datetime import date, datetime
from datetime import time as time_
from typing import Literal

from pydantic import Field

from coatpeg.people.shapes import Day, Face, Named, Shape

ItemWord = Literal["page", "file", "link"]
ProgressWord = Literal["taken_out", "not_opened", "opened", "begun", "handed_in"]
MANY = 5_000


class OwnCopy(Shape):
    """Where a student's own copy lies."""

    id: int
    portfolio: int
    pocket: Named


class ItemShape(Shape):
    """A thing in the cupboard.

    ``waits``: students see it from a day to come. To staff ``copies`` and ``read`` say how many students have one and
    have read it; a student reads in ``read`` whether they have (0 or 1), and in ``mine`` where their copies lie.
    """

    id: int
    kind: ItemWord
    title: str
    heading: str
    link: str
    file_kind: str
    media_type: str
    size: int
    staff_only: bool
    opens: date | None
    waits: bool
    periods: list[int]
    groups: list[int]
    lent_from: str
    """The class that it is lent from; empty where it is this class's own."""
    version: int
    changed_at: datetime
    copies: int
    read: int
    mine: list[OwnCopy]


class PocketForItem(Named):
    """A pocket of the class, in its order; ``why_not`` says why a copy does not fit there (empty: it does)."""

    section: str
    why_not: str


class OpenedItem(ItemShape):
    """The same with what is in it, and the pockets that take a copy."""

    html: str
    group: int
    pockets: list[PocketForItem]
    lendable: list[Named]
    """The other classes whose cupboard this person keeps, to which it can be lent."""
    lent_to: list[int]
    """The classes in which it is lent."""


class CupboardShape(Shape):
    """A class's cupboard, in the order in which it is read; ``keeps``: whether this person puts things in."""

    items: list[ItemShape]
    keeps: bool
    periods: list[Named]
    groups: list[Named]


class LentIn(Shape):
    """The classes in which an item is to be lent, of those whose cupboard this person keeps."""

    classes: list[int] = Field(max_length=500)


class ShownIn(Shape):
    """To whom an item is shown."""

    staff_only: bool = False
    opens: Day | None = None
    periods: list[int] = Field(default=[], max_length=200)
    groups: list[int] = Field(default=[], max_length=500)


class ItemIn(ShownIn):
    """A page or a link, or what is said of a file."""

    title: str = Field(max_length=500)
    heading: str = Field(default="", max_length=500)
    html: str = Field(default="", max_length=1_000_000)
    link: str = Field(default="", max_length=4_000)


class NewItemIn(ItemIn):
    """A new page or link."""

    kind: Literal["page", "link"]


class ChangedItemIn(ItemIn):
    """A change of an item, with the version that was seen."""

    version: int = Field(ge=1, le=2**31 - 1)


class TakeIn(Shape):
    """Into which pocket a copy goes."""

    pocket: int


class TakenCopy(Shape):
    """A copy that was taken."""

    id: int
    item: int
    portfolio: int
    pocket: Named
    evidence: int


class OpenedCopies(Shape):
    """How many copies were opened, or came newer, as their pocket was opened."""

    touched: int


class CopyLine(Shape):
    """Somebody's copy; ``newer``: a newer one lies beside it."""

    id: int
    student: Face
    portfolio: int
    pocket: Named
    at: datetime
    given: int | None
    newer: bool
    progress: ProgressWord


class GiveIn(Shape):
    """Into which pocket, and to whom: students (enrolments), else periods, else (both empty) the class."""

    pocket: int
    students: list[int] = Field(default=[], max_length=MANY)
    periods: list[int] = Field(default=[], max_length=200)


class GiveNowIn(GiveIn):
    """The same to be done; ``key`` is the page's own name of it.

    At once, or on a ``day`` at a local ``time`` (none: as the day begins).
    """

    key: str = Field(min_length=1, max_length=36)
    day: Day | None = None
    time: time_ | None = None


class GivingImpact(Shape):
    """What giving out would do: who gets it, has it, whose pocket is locked, or full."""

    gets: list[Face]
    has: list[Face]
    locked: list[Face]
    full: list[Face]


class GivenShape(Shape):
    """What was given out."""

    id: int
    item: Named
    pocket: Named
    who: str
    at: datetime
    waits_for: datetime | None
    """The moment at which it is given out; None: it is."""
    whole: bool
    periods: list[str]
    taken_back_at: datetime | None


class GivenLine(GivenShape):
    """The same with how far how many have come."""

    taken_out: int
    not_opened: int
    opened: int
    begun: int
    handed_in: int
