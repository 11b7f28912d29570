"""Deeds on many cells at once: which of them can be done as they stand now, and why the others cannot.

Decided here: what was chosen is acted on as it was seen. A cell that stands otherwise by now (handed in since, marked
since) is left alone and said; *empty* and *being worked on* are one, since a key typed meanwhile changes nothing.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.standing import Status

MOST_DAYS = 200
"""School days by which a due date is moved at most: about a year of school."""


class Why(StrEnum):
    """Why a cell is left alone."""

    GONE = "gone"
    CHANGED = "changed"
    NOT_ASKED = "not_asked"
    EXCUSED = "excused"
    NOT_EXCUSED = "not_excused"
    NO_DUE = "no_due"
    BEFORE_OPENING = "before_opening"
    ALREADY = "already"
    NOT_OPEN = "not_open"
    NOT_HANDED_IN = "not_handed_in"
    NOT_DECIDED = "not_decided"
    BY_RUBRIC = "by_rubric"
    BY_TWO = "by_two"


@dataclass(frozen=True, slots=True)
class Move:
    """To another due date: by so many school days, or to a day with an optional time; neither: as for everybody."""

    days: int = 0
    to: Due | None = None


_ALIKE = {Status.EMPTY: Status.WORKING, Status.NOT_OPEN: Status.WORKING}


def still(seen: Status, now: Status) -> bool:
    """Whether a cell stands as it was seen."""
    return _ALIKE.get(seen, seen) is _ALIKE.get(now, now)


def why_not_excuse(status: Status, *, excused: bool) -> Why | None:
    """Why a cell cannot be excused, or its excuse not ended; None where it can."""
    if status is Status.NOT_ASKED:
        return Why.NOT_ASKED
    if excused:
        return Why.ALREADY if status is Status.EXCUSED else None
    return None if status is Status.EXCUSED else Why.NOT_EXCUSED


def why_not_lock(status: Status, *, already: bool) -> Why | None:
    """Why what a cell collects cannot be locked or opened; ``already`` where all of it is so."""
    if status is Status.NOT_ASKED:
        return Why.NOT_ASKED
    return Why.ALREADY if already else None


def why_not_hand_in_for(status: Status) -> Why | None:
    """Why staff cannot hand in for a student: what stands is not doubled, a *sent back* can be handed in again."""
    return {
        Status.NOT_ASKED: Why.NOT_ASKED,
        Status.EXCUSED: Why.EXCUSED,
        Status.HANDED_IN: Why.ALREADY,
        Status.ACCEPTED: Why.ALREADY,
        Status.NOT_OPEN: Why.NOT_OPEN,
    }.get(status)


def why_not_send_back(status: Status) -> Why | None:
    """Why a cell cannot be sent back: only what is handed in and not decided can."""
    if status is Status.HANDED_IN:
        return None
    return {Status.EXCUSED: Why.EXCUSED, Status.SENT_BACK: Why.ALREADY}.get(status, Why.NOT_HANDED_IN)


def why_not_accept(status: Status, *, by_rubric: bool, by_two: bool) -> Why | None:
    """Why a cell cannot be accepted with the same words as others: of a rubric each criterion is judged first."""
    if status is not Status.HANDED_IN:
        return {Status.EXCUSED: Why.EXCUSED, Status.ACCEPTED: Why.ALREADY}.get(status, Why.NOT_HANDED_IN)
    return Why.BY_TWO if by_two else Why.BY_RUBRIC if by_rubric else None


def why_not_reopen(status: Status) -> Why | None:
    """Why a cell cannot be reopened: only what is accepted or sent back can."""
    if status in (Status.ACCEPTED, Status.SENT_BACK):
        return None
    return Why.EXCUSED if status is Status.EXCUSED else Why.NOT_DECIDED


def moved(due: Due | None, move: Move, calendar: SchoolCalendar) -> Due | None:
    """Where a move puts a due: the same time of day, or the time that it names; None where there is none to move."""
    if move.to is not None:
        return move.to
    if due is None or not move.days:
        return None
    return Due(calendar.after(due.day, move.days), due.at)


def why_not_move(status: Status, due: Due | None, then: Due | None, opens: date) -> Why | None:
    """Why a student's due date cannot be moved to ``then``; None where it can."""
    if status is Status.NOT_ASKED:
        return Why.NOT_ASKED
    if status is Status.EXCUSED:
        return Why.EXCUSED
    if then is None:
        return Why.NO_DUE
    if then.day < opens:
        return Why.BEFORE_OPENING
    return Why.ALREADY if then == due else None
