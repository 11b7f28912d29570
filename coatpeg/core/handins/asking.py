"""Who is asked for a hand-in, and when it is due for them.

Source: the product's *Who is asked* and *A student's due moment*. Decided here:

* Joining is judged by the unmoved due day (staff's own date where they set one), leaving by the
  effective one: extra days never make a newcomer owe old work, and nothing becomes overdue after
  the day somebody left.
* An audience of periods means the students who were in one of them on the earliest due day (without
  any due day: at some time after it opened).
* A date of their own asks a student of another period too, and one who was not picked: staff who give it mean it.
* Students may be picked, or left out; of periods and picked students both must hold. Groups are their members as
  they are now: whoever comes into a group that is asked is asked.
* Whoever left and came back was not enrolled in between: what was due then is not asked.
* On the day of joining and on the day of leaving a student is enrolled.
* Whoever has a submission that stands stays asked, whatever the audience, the dates or the class list say later
  (``stays_asked``): what was handed in is never out of sight.
* It closes at a local date with an optional time, a date alone at its end; from the second after that it takes nothing.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from enum import StrEnum

from coatpeg.core.calendar.school_days import SchoolCalendar, Span, moment_of
from coatpeg.core.handins.standing import Facts
from coatpeg.core.outlines.adjusting import WantedChange


@dataclass(frozen=True, slots=True)
class Due:
    """A local due date with an optional time."""

    day: date
    at: time | None = None

    def moment(self, calendar: SchoolCalendar) -> datetime:
        """The UTC moment it stands for."""
        return moment_of(self.day, self.at, calendar.zoneinfo)


@dataclass(frozen=True, slots=True)
class Adjustment:
    """Extra school days agreed with learning support, for due days inside the span."""

    extra_days: int
    span: Span


@dataclass(frozen=True, slots=True)
class Asked:
    """What a hand-in asks for, of whom, by when. ``period_dues`` maps period id to its own due."""

    opens: date
    due: Due | None = None
    period_dues: Mapping[int, Due] | None = None
    audience: frozenset[int] | None = None
    """Period ids, or None for everybody of the class."""
    closes: Due | None = None
    """From when on it takes nothing more."""
    only: frozenset[int] | None = None
    """Enrolments that are picked, one by one or as members of groups; None where nobody is picked."""
    but: frozenset[int] = frozenset()
    """Enrolments that are left out."""

    @property
    def earliest(self) -> date | None:
        """The earliest of all its due days; None where it has none."""
        days = [due.day for due in (self.period_dues or {}).values()]
        if self.due:
            days.append(self.due.day)
        return min(days, default=None)

    @property
    def until(self) -> date | None:
        """The last day on which work for it is meant to come: its latest due day, else its closing; None: any day."""
        days = [due.day for due in (self.due, *(self.period_dues or {}).values()) if due]
        return max(days, default=self.closes.day if self.closes else None)


@dataclass(frozen=True, slots=True)
class Student:
    """One enrolment as the rules see it: its span, period memberships, adjustments, spans away within it."""

    enrolled: Span
    periods: tuple[tuple[int, Span], ...] = ()
    adjustments: tuple[Adjustment, ...] = ()
    away: tuple[Span, ...] = ()
    wants: tuple[WantedChange, ...] = ()
    """What adjustments change about what is wanted."""

    def is_enrolled(self, day: date) -> bool:
        """Whether they are enrolled on a day: inside the span, and not between leaving and coming back."""
        return self.enrolled.holds(day) and not any(span.holds(day) for span in self.away)

    def is_adjusted_on(self, day: date) -> bool:
        """Whether anything agreed with learning support holds on a day."""
        spans = [one.span for one in self.adjustments] + [one.span for one in self.wants]
        return any(span.holds(day) for span in spans)

    def period_on(self, day: date) -> int | None:
        """The period they are in on a day (of several, the one joined last)."""
        found = [(span.first, period) for period, span in self.periods if span.holds(day)]
        return max(found)[1] if found else None


class DueSource(StrEnum):
    """Why a due moment is what it is."""

    OWN = "own"
    PERIOD = "period"
    CLASS = "class"
    NONE = "none"
    NO_PERIOD = "no_period"
    """Only periods have due moments and this student is in none of them: shown to staff."""


@dataclass(frozen=True, slots=True)
class EffectiveDue:
    """One student's due: the date, its UTC moment, where it came from and how far it was moved."""

    due: Due | None
    moment: datetime | None
    source: DueSource
    unmoved: Due | None = None
    extra_days: int = 0


def extra_days(adjustments: Sequence[Adjustment], day: date) -> int:
    """Extra school days for an unmoved due day: of several adjustments that hold then, the largest."""
    return max((one.extra_days for one in adjustments if one.span.holds(day)), default=0)


def effective_due(asked: Asked, student: Student, own: Due | None, calendar: SchoolCalendar) -> EffectiveDue:
    """One student's due moment: own date, else the period's, else the class's, moved by the adjustment."""
    if own is not None:
        return EffectiveDue(own, own.moment(calendar), DueSource.OWN, own)
    due, source = asked.due, DueSource.CLASS
    if asked.period_dues and asked.earliest:
        period = student.period_on(asked.earliest)
        if period is not None and period in asked.period_dues:
            due, source = asked.period_dues[period], DueSource.PERIOD
        elif due is None:
            return EffectiveDue(None, None, DueSource.NO_PERIOD)
    if due is None:
        return EffectiveDue(None, None, DueSource.NONE)
    days = extra_days(student.adjustments, due.day)
    moved = Due(calendar.after(due.day, days), due.at) if days else due
    return EffectiveDue(moved, moved.moment(calendar), source, due, days)


def in_audience(asked: Asked, student: Student) -> bool:
    """Whether the audience names this student, by their period where it names periods."""
    if asked.audience is None:
        return True
    if asked.earliest:
        return student.period_on(asked.earliest) in asked.audience
    return any(
        period in asked.audience and (span.last is None or span.last >= asked.opens) for period, span in student.periods
    )


def is_named(asked: Asked, enrolment: int) -> bool:
    """Whether a hand-in that picks students, or leaves some out, means this one."""
    return (asked.only is None or enrolment in asked.only) and enrolment not in asked.but


def stays_asked(asked: bool, facts: Facts | None) -> bool:
    """Whether a student is asked, given what the audience says and what they handed in."""
    return asked or (facts is not None and facts.newest is not None)


def at_once(one: Asked, other: Asked) -> bool:
    """Whether there is a day on which both are open and not due yet."""
    first = max(one.opens, other.opens)
    return all(of.until is None or first <= of.until for of in (one, other))


def is_closed(asked: Asked, calendar: SchoolCalendar, now: datetime) -> bool:
    """Whether it takes nothing more at a moment; compared by whole seconds, as lateness is."""
    return asked.closes is not None and now >= asked.closes.moment(calendar) + timedelta(seconds=1)


def is_asked(asked: Asked, student: Student, effective: EffectiveDue) -> bool:
    """Whether this student is asked for it at all; see the module's text for the corners."""
    if effective.source is not DueSource.OWN and not in_audience(asked, student):
        return False
    if effective.unmoved is None or effective.due is None:
        left = student.enrolled.last
        return left is None or left >= asked.opens
    return student.is_enrolled(effective.unmoved.day) and student.is_enrolled(
        max(effective.due.day, effective.unmoved.day)
    )
