"""What the API takes and gives of sets of groups."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from coatpeg.people.shapes import Day, Shape

Students = Annotated[list[int], Field(max_length=5_000)]


class GroupedStudent(Shape):
    """A student of the class, by enrolment."""

    id: int
    given_name: str
    family_name: str
    family_first: bool
    picture: str
    tint: int
    period: str


class PlaceInGroup(Shape):
    """Who is in a group, and since when, where it is known."""

    id: int
    since: date | None


class GroupOfSet(Shape):
    """A working group."""

    id: int
    name: str
    members: list[PlaceInGroup]


class FormerPlace(Shape):
    """Who was in which group from when to when."""

    name: str
    group: str
    first: date | None
    last: date


class GroupSetShape(Shape):
    """A set of groups; ``chosen_until``: students choose theirs until that day. ``fills``: titles of pockets.

    Who is never (``apart``) or always (``together``) drawn into one group is shown to who may change them.
    """

    id: int
    name: str
    chosen_until: date | None
    most: int | None
    groups: list[GroupOfSet]
    apart: list[list[int]]
    together: list[list[int]]
    seed: int | None
    fills: list[str]
    former: list[FormerPlace]


class GroupSetsShape(Shape):
    """All sets of a class, and its students of today."""

    may_change: bool
    pages_together: bool
    """Students may begin pages with classmates whom they choose."""
    students: list[GroupedStudent]
    sets: list[GroupSetShape]


class GroupNameIn(Shape):
    """What a set or a group is called."""

    name: str = Field(max_length=400)


class MadeGroup(Shape):
    """What was made."""

    id: int
    name: str


class MoveIntoGroupIn(Shape):
    """Students and the group they go into; None: out of all groups of the set."""

    students: Students
    group: int | None


class GroupsChanged(Shape):
    """The change of the class list that undoes it; None where nothing changed."""

    change: int | None


class WishesIn(Shape):
    """Who is never, and who is always, drawn into one group."""

    apart: list[Students] = Field(max_length=500)
    together: list[Students] = Field(max_length=500)


class DrawIn(Shape):
    """Groups of about ``size``, each within a period or mixed across all; ``seed`` tells a draw again."""

    size: int
    mixing: Literal["within", "across"]
    seed: int | None = Field(default=None, ge=0, le=2**31 - 1)


class FormIn(DrawIn):
    """A draw that was shown."""

    seen: str = Field(max_length=64)


class DrawnGroup(Shape):
    """A group that a draw makes."""

    name: str
    members: list[int]


class DrawnShape(Shape):
    """The groups that a draw makes, and the seed that makes them again."""

    seed: int
    groups: list[DrawnGroup]
    seen: str


class LetChooseIn(Shape):
    """Until when students choose (None: no longer), and how many fit into a group."""

    until: Day | None
    most: int | None


class ChosenIn(Shape):
    """The group that a student goes into; None: into none."""

    group: int | None
