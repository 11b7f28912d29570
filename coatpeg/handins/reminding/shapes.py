"""Shapes of reminding."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import Field

from coatpeg.people.shapes import Shape

MOST = 20_000


class RemindCellIn(Shape):
    """A peg to remind of."""

    handin: int
    enrolment: int


class RemindIn(Shape):
    """The chosen pegs and the teacher's words; ``again`` also reminds who was reminded in this school day."""

    cells: list[RemindCellIn] = Field(min_length=1, max_length=MOST)
    text: str = Field(max_length=20_000)
    again: bool = False
    only_look: bool = False


class MessageShape(Shape):
    """What one student is told; ``last`` is when they were reminded before."""

    enrolment: int
    name: str
    text: str
    handins: list[int]
    last: datetime | None


class NotRemindedShape(Shape):
    """Who is not reminded, for one reason."""

    why: Literal["gone", "not_asked", "excused", "not_open", "closed", "handed_in", "left", "reminded"]
    cells: int
    names: list[str]


class RemindedShape(Shape):
    """Who is told what, and who is not."""

    messages: list[MessageShape]
    left: list[NotRemindedShape]
