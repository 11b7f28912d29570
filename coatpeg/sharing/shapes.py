"""Shapes of shared pages. ``data`` and ``update`` are Yjs document updates (version 1) in base64."""

from __future__ import annotations

from datetime import datetime

from pydantic import Field

from coatpeg.people.shapes import MateShape, Shape


class AuthoredSpan(Shape):
    """Ticks from–to of a writer id, written by a person at a time."""

    client: int
    start: int
    end: int
    person: int
    at: datetime


class WriterShape(Shape):
    """Somebody who fills a page, or did; students are told no more of each other than this."""

    person: int
    name: str
    picture: str
    tint: int
    there: bool
    words: int
    sentences: int
    times: int
    last: datetime | None
    read: bool
    """Whether they had it open, ever."""


class WrittenShape(Shape):
    """Who wrote what. ``spans`` are five numbers each: writer id, ticks from–to, person, time in seconds since 1970."""

    people: list[WriterShape]
    spans: list[int]


class OpenedSharedPage(WrittenShape):
    """A page with everything on it; ``client`` is a writer id where it may be written on, ``closed`` why it may not."""

    id: int
    number: int
    data: str
    client: int | None
    closed: str
    may_lead: bool
    question: str
    question_at: datetime | None
    is_open: bool


class ExchangeIn(Shape):
    """What a device has seen (the number of the last update), and what it wrote since, under its writer id."""

    after: int = Field(ge=0, le=2**31)
    client: int | None = Field(default=None, ge=1, lt=2**32)
    update: str | None = Field(default=None, max_length=8_000_000)


class SharedUpdateShape(AuthoredSpan):
    """An update: the ticks are new in it."""

    data: str


class ExchangedShape(Shape):
    """What came since; ``data`` is the page put together, in place of the single updates. ``apart``: milliseconds
    until the next exchange.
    """

    number: int
    closed: str
    apart: int
    question: str
    question_at: datetime | None
    is_open: bool
    data: str | None
    updates: list[SharedUpdateShape]


class QuestionIn(Shape):
    """A question on top of a page; empty: none."""

    question: str = Field(max_length=5_000)


class PassageIn(Shape):
    """A passage by its place (0 first) and its words as they were seen."""

    place: int = Field(ge=0, le=100_000)
    words: str = Field(max_length=300_000)


class OwnPassageIn(PassageIn):
    """A passage of a page, to be put into a pocket of one's own."""

    shared: int


class ClassmateShape(MateShape):
    """A classmate with whom a page can be begun."""

    id: int


class BeginPageIn(Shape):
    """A page to begin, and with whom (enrolments)."""

    title: str = Field(max_length=1_000)
    others: list[int] = Field(max_length=500)


class BegunPage(Shape):
    """The page in the list of whoever began it."""

    id: int
    title: str


class AllowedIn(Shape):
    """Whether it is allowed."""

    allowed: bool


class LedShape(Shape):
    """How a page is led now."""

    question: str
    question_at: datetime | None
    is_open: bool


class TakenShape(Shape):
    """A passage that was taken off a page."""

    id: int
    at: datetime
    by: str
    text: str


class ByShape(Shape):
    """Ticks that a person wrote, and ticks of others that they took away."""

    person: int
    added: int
    away: int


class MomentLine(Shape):
    """A moment that is kept of a page, and who did what since the one before."""

    id: int
    at: datetime
    words: int
    by: list[ByShape]


class MomentsShape(Shape):
    """The moments of a page, newest first, and the passages that were taken off it."""

    moments: list[MomentLine]
    taken: list[TakenShape]


class MomentShape(Shape):
    """How a page stood at a moment."""

    id: int
    at: datetime
    words: int
    html: str
    data: str
