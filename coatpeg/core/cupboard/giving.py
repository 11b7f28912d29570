"""Giving out: who gets a copy, and how far each has come with it.

Decided here: whoever has a copy of the item in that pocket already gets none a second time; into a locked pocket
nothing is put, those students are named; whoever joins later gets what was given to the whole class or to their period.
Given out is taken back from everybody who has not begun; who has begun keeps it and is named.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum


@dataclass(frozen=True, slots=True)
class Candidate:
    """A student whom a copy is meant for: whether they have it there already, whether the pocket takes it now."""

    id: int
    has: bool = False
    locked: bool = False
    full: bool = False


@dataclass(frozen=True, slots=True)
class Plan:
    """Who gets a copy, who has one, whose pocket is locked or full; each student stands once, in their order."""

    gets: tuple[int, ...] = ()
    has: tuple[int, ...] = ()
    locked: tuple[int, ...] = ()
    full: tuple[int, ...] = ()


def plan(candidates: Iterable[Candidate]) -> Plan:
    """Sort out whom giving out reaches."""
    found: dict[str, list[int]] = {"gets": [], "has": [], "locked": [], "full": []}
    for one in candidates:
        key = "has" if one.has else "locked" if one.locked else "full" if one.full else "gets"
        found[key].append(one.id)
    return Plan(**{key: tuple(ids) for key, ids in found.items()})


class Progress(StrEnum):
    """How far a student has come with a copy."""

    TAKEN_OUT = "taken_out"
    NOT_OPENED = "not_opened"
    OPENED = "opened"
    BEGUN = "begun"
    HANDED_IN = "handed_in"


def progress(*, lies_there: bool, opened: bool, changed: bool, handed_in: bool) -> Progress:
    """How far a copy has come: the furthest that is so. What was handed in counts also where it was taken out since."""
    if handed_in:
        return Progress.HANDED_IN
    if not lies_there:
        return Progress.TAKEN_OUT
    if changed:
        return Progress.BEGUN
    return Progress.OPENED if opened else Progress.NOT_OPENED
