"""The status of one student for one hand-in, derived from events; never typed in.

Source: the product's *Status of one student for one hand-in*. ``Facts`` hold only what events
decide and may be kept; what depends on ``now`` is judged when read, and ``changes_at`` says when the
answer next changes by itself. Decided here:

* Moments are compared floored to the second: handed in during the due second is on time.
* Excusing ends *late* and *overdue*; what was handed in stays readable. Ending the excuse brings the
  facts back as they were.
* Reopening a *sent back* makes it *handed in* again and takes the hand-in's hold again.
* Where every submission was taken back the student stands as if nothing had been handed in.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from enum import StrEnum
from typing import NamedTuple

from coatpeg.core.calendar.school_days import SchoolCalendar, quick_days

ONE_SECOND = timedelta(seconds=1)


class Status(StrEnum):
    """The eight statuses, in the order in which the first that applies is taken."""

    NOT_ASKED = "not_asked"
    EXCUSED = "excused"
    ACCEPTED = "accepted"
    SENT_BACK = "sent_back"
    HANDED_IN = "handed_in"
    NOT_OPEN = "not_open"
    WORKING = "working"
    EMPTY = "empty"


class Verb(StrEnum):
    """What people do that decides a status; the events of a hand-in carry these words."""

    HANDED_IN = "handed_in"
    TAKEN_BACK = "taken_back"
    ACCEPTED = "accepted"
    SENT_BACK = "sent_back"
    REOPENED = "reopened"
    EXCUSED = "excused"
    UNEXCUSED = "unexcused"


@dataclass(frozen=True, slots=True)
class Happening:
    """One event of one student and hand-in. ``at`` of a submission is when it counts as received."""

    verb: Verb
    at: datetime
    submission: int = 0
    due_again: datetime | None = None


class Facts(NamedTuple):
    """What events decide: kept per student and hand-in, rebuilt by ``fold``."""

    first_at: datetime | None = None
    newest: int | None = None
    newest_at: datetime | None = None
    submissions: int = 0
    outcome: Status | None = None
    due_again: datetime | None = None
    excused: bool = False


NOTHING = Facts()


class Standing(NamedTuple):
    """The answer for one cell. ``late_days`` are school days, ``late_by`` the plain duration."""

    status: Status
    late: bool
    late_days: int
    late_by: timedelta | None
    overdue: bool
    changes_at: datetime | None


def fold(happenings: Iterable[Happening]) -> Facts:
    """The facts after a history of happenings, in order. What is void is ignored, wherever it stands."""
    standing: dict[int, Happening] = {}
    outcomes: dict[int, Happening] = {}
    count, excused = 0, False
    for happening in happenings:
        if happening.verb is Verb.HANDED_IN:
            standing[happening.submission] = happening
            count += 1
        elif happening.verb is Verb.TAKEN_BACK:
            standing.pop(happening.submission, None)
        elif happening.verb is Verb.REOPENED:
            outcomes.pop(happening.submission, None)
        elif happening.verb is Verb.EXCUSED:
            excused = True
        elif happening.verb is Verb.UNEXCUSED:
            excused = False
        else:
            outcomes[happening.submission] = happening
    if not standing:
        return Facts(submissions=count, excused=excused)
    newest = list(standing.values())[-1]
    outcome = outcomes.get(newest.submission)
    return Facts(
        first_at=min(happening.at for happening in standing.values()),
        newest=newest.submission,
        newest_at=newest.at,
        submissions=count,
        outcome=Status(outcome.verb.value) if outcome else None,
        due_again=outcome.due_again if outcome else None,
        excused=excused,
    )


def by_newest(facts: Facts) -> Facts:
    """The facts of a hand-in that may be handed in again until it is due: *late* follows the newest submission."""
    return facts._replace(first_at=facts.newest_at)


def decided(facts: Facts) -> Standing:
    """What events decided, where nothing is judged by dates: of a hand-in that was taken away."""
    return _EXCUSED if facts.excused else _ON_TIME[facts.outcome] if facts.newest is not None else NOT_ASKED


def judge(
    facts: Facts,
    *,
    asked: bool,
    opens: datetime,
    due: datetime | None,
    has_work: bool,
    now: datetime,
    calendar: SchoolCalendar,
) -> Standing:
    """Status and flags of one student for one hand-in at ``now``; all moments are UTC."""
    first_at, newest, _, _, outcome, due_again, excused = facts
    if not asked:
        return NOT_ASKED
    if excused:
        return _EXCUSED
    if newest is None or first_at is None:
        return _without_submission(opens, due, has_work, now)
    late, days, by = False, 0, None
    # A moment below due + 1 s floors to the due second or earlier.
    if due is not None and first_at >= due + ONE_SECOND:
        late, by = True, first_at.replace(microsecond=0) - due
        days = calendar.between(calendar.local_day(due), calendar.local_day(first_at))
    if outcome is Status.SENT_BACK and due_again is not None:
        overdue = now >= due_again + ONE_SECOND
        return Standing(outcome, late, days, by, overdue, None if overdue else due_again + ONE_SECOND)
    if not late:
        return _ON_TIME[outcome]
    return Standing(outcome or Status.HANDED_IN, late, days, by, False, None)


NOT_ASKED = Standing(Status.NOT_ASKED, False, 0, None, False, None)
_EXCUSED = Standing(Status.EXCUSED, False, 0, None, False, None)
_ON_TIME = {
    outcome: Standing(outcome or Status.HANDED_IN, False, 0, None, False, None)
    for outcome in (None, Status.ACCEPTED, Status.SENT_BACK)
}


def _without_submission(opens: datetime, due: datetime | None, has_work: bool, now: datetime) -> Standing:
    """Nothing handed in: not open, working or empty, and whether it is overdue."""
    overdue = due is not None and now >= due + ONE_SECOND
    if now < opens:
        return Standing(Status.NOT_OPEN, False, 0, None, overdue, opens)
    changes = None if overdue or due is None else due + ONE_SECOND
    return Standing(Status.WORKING if has_work else Status.EMPTY, False, 0, None, overdue, changes)


def _late_days(calendar: SchoolCalendar) -> Callable[[datetime, datetime], int]:
    """What counts the school days from a due moment to the local day of another, once for each of these days."""
    known: dict[tuple[datetime, date], int] = {}
    day_of = quick_days(calendar)

    def count(due: datetime, at: datetime) -> int:
        key = (due, day_of(at))
        found = known.get(key)
        if found is None:
            found = known[key] = calendar.between(calendar.local_day(due), key[1])
        return found

    return count


def judge_column(
    cells: Iterable[tuple[Facts | None, bool, datetime | None, bool]],
    *,
    opens: datetime,
    now: datetime,
    calendar: SchoolCalendar,
) -> list[Standing]:
    """``judge`` for all students of one hand-in: cells of (facts, asked, due, has_work).

    Cells without any event share one answer per (asked, due, has_work); a year group has few of those. A cell
    handed in on time, which most are, is told without a call; of late ones the school days are counted once for a
    due moment and day. A property test holds all of it to ``judge``.
    """
    shared: dict[tuple[bool, datetime | None, bool], Standing] = {}
    limits: dict[datetime, datetime] = {}
    answers: list[Standing] = []
    add = answers.append
    late_days = _late_days(calendar)
    for facts, asked, due, has_work in cells:
        if facts is None or facts is NOTHING:
            key = (asked, due, has_work)
            found = shared.get(key)
            if found is None:
                found = shared[key] = judge(
                    NOTHING, asked=asked, opens=opens, due=due, has_work=has_work, now=now, calendar=calendar
                )
            add(found)
            continue
        first_at, _, _, _, outcome, due_again, excused = facts
        if asked and not excused and first_at is not None and due is not None and due_again is None:
            limit = limits.get(due)
            if limit is None:
                limit = limits[due] = due + ONE_SECOND
            if first_at < limit:
                add(_ON_TIME[outcome])
            else:
                by = first_at.replace(microsecond=0) - due
                add(Standing(outcome or Status.HANDED_IN, True, late_days(due, first_at), by, False, None))
            continue
        add(judge(facts, asked=asked, opens=opens, due=due, has_work=has_work, now=now, calendar=calendar))
    return answers
