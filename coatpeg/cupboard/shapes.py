"""Shapes of the cupboard."""

from __future__ import annotations

from datetime import date, datetime
from datetime import time as time_
from typing import Literal

from pydantic import Field

from coatpeg.people.shapes import Day, Face, Named, Shape

ItemWord = Literal["page", "file", "link", "log", "pocket"]
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


class LaidItem(ItemShape):
    """A pocket, or a log's columns, in the cupboard; ``new``: nothing lay there of it before."""

    new: bool


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
    """Somebody's copy of an item; ``newer``: a newer one lies beside it."""

    id: int
    student: Face
    title: str
    portfolio: int
    pocket: Named
    at: datetime
    given: int | None
    newer: bool
    progress: ProgressWord


class GivenVersionIn(Shape):
    """An item that some get: who have a surname of a range, or are in these periods or groups (ids)."""

    item: int
    first: str = Field(default="", max_length=10)
    last: str = Field(default="", max_length=10)
    places: list[int] = Field(default=[], max_length=200)


class GivenVersionsIn(Shape):
    """Several items of which each student gets one; a seed tells dealing at random again."""

    by: Literal["surname", "period", "group", "random", "hand"]
    seed: int = Field(default=0, ge=0, le=2**31)
    versions: list[GivenVersionIn] = Field(max_length=40)
    hand: dict[int, int] = Field(default={}, max_length=MANY)
    """By hand: which item (id) a student (enrolment) gets; nobody named gets the first."""


class GiveIn(Shape):
    """Into which pocket, and to whom: students (enrolments), else periods and groups, else (all empty) the class.

    ``versions``: the item is the first of several, of which each gets one.
    """

    pocket: int
    students: list[int] = Field(default=[], max_length=MANY)
    periods: list[int] = Field(default=[], max_length=200)
    groups: list[int] = Field(default=[], max_length=500)
    versions: GivenVersionsIn | None = None


class GiveNowIn(GiveIn):
    """The same to be done; ``key`` is the page's own name of it.

    At once, or on a ``day`` at a local ``time`` (none: as the day begins).
    """

    key: str = Field(min_length=1, max_length=36)
    day: Day | None = None
    time: time_ | None = None


class GivenVersion(Shape):
    """Who gets a version."""

    item: int
    title: str
    gets: list[Face]


class GivingImpact(Shape):
    """What giving out would do: who gets it, has it, whose pocket is locked, or full.

    Of ``versions`` who gets which; ``nowhere`` are in no period or group that one names, and get the first.
    """

    gets: list[Face]
    has: list[Face]
    locked: list[Face]
    full: list[Face]
    versions: list[GivenVersion]
    nowhere: list[Face]


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
    groups: list[str]
    versions: list[str]
    """The titles of its versions; none: everybody got the same."""
    taken_back_at: datetime | None


class GivenLine(GivenShape):
    """The same with how far how many have come."""

    taken_out: int
    not_opened: int
    opened: int
    begun: int
    handed_in: int
