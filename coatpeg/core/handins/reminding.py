"""Reminders: who owes what, in the teacher's words with each student's own missing things filled in.

Decided here: a student owes what is asked of them, open and not handed in, overdue or not, and what was sent back.
Never twice in a school day: a reminder of Friday still counts on Saturday and Sunday. ``{name}`` and ``{missing}``
stand for the given name and the missing things; where ``{missing}`` is left out, they follow the words: a reminder
says of what. Any other brace is a brace.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Invalid
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.standing import Standing, Status

LONGEST = 2_000
"""Characters of a teacher's words."""
NAME, MISSING = "{name}", "{missing}"
_SETTLED = (Status.HANDED_IN, Status.ACCEPTED)


class WhyNot(StrEnum):
    """Why nobody is reminded of a peg."""

    GONE = "gone"
    NOT_ASKED = "not_asked"
    EXCUSED = "excused"
    NOT_OPEN = "not_open"
    CLOSED = "closed"
    HANDED_IN = "handed_in"
    LEFT = "left"
    REMINDED = "reminded"
    """Today already."""


@dataclass(frozen=True, slots=True)
class Owed:
    """One thing that is missing: its title, its due date, whether it was sent back, whether the date has passed."""

    title: str
    due: Due | None
    sent_back: bool
    overdue: bool


def why_not(standing: Standing, *, closed: bool) -> WhyNot | None:
    """Why a peg is nothing to remind of; None where it is."""
    if standing.status is Status.NOT_ASKED:
        return WhyNot.NOT_ASKED
    if standing.status is Status.EXCUSED:
        return WhyNot.EXCUSED
    if standing.status in _SETTLED:
        return WhyNot.HANDED_IN
    if standing.status is Status.NOT_OPEN:
        return WhyNot.NOT_OPEN
    return WhyNot.CLOSED if closed else None


def reminded_today(last: datetime | None, now: datetime, calendar: SchoolCalendar) -> bool:
    """Whether a reminder has gone out in this school day, days off counted to the one before."""
    if last is None:
        return False
    then, today = calendar.local_day(last), calendar.local_day(now)
    return then == today or calendar.between(then, today) == 0


def check(words: str) -> str:
    """The words of a reminder, trimmed; ``Invalid`` where there are none or too many."""
    words = words.strip()
    if not words:
        raise Invalid("The reminder has no words.", where="text", fix="Write what you would say to them.")
    if len(words) > LONGEST:
        raise Invalid(
            f"The reminder has {len(words):,} characters, more than {LONGEST:,}.", where="text", fix="Shorten it."
        )
    return words


def filled_in(words: str, name: str, owed: Iterable[Owed]) -> str:
    """One student's reminder: a line for each thing that is missing."""
    lines = "\n".join(f"– {_line(one)}" for one in owed)
    if MISSING not in words:
        words = f"{words}\n\n{MISSING}"
    # The missing things last: a title that reads like a place stays as it is.
    return words.replace(NAME, name).replace(MISSING, lines)


def _line(one: Owed) -> str:
    when = f"due {_day(one.due.day)}{f', {one.due.at:%H:%M}' if one.due.at else ''}" if one.due else "no due date"
    if one.sent_back:
        return f"{one.title} (sent back: hand it in again)"
    return f"{one.title} ({when}{', which has passed' if one.overdue else ''})"


def _day(day: date) -> str:
    return f"{day:%a} {day.day} {day:%b}"
