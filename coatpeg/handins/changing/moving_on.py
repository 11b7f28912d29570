"""Moving all dates of a class, or of all classes of a person, on after lost school days; undone as one.

The table of what moved stands in the class's event, so that it can be taken back as far as nobody has changed a date
since, also tomorrow.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from uuid import uuid4

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.handins.moving_on import MOST_DAYS, Dated, MovedDate, Which, moved_on
from coatpeg.core.policy import Action
from coatpeg.events.models import Event
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.changing.telling_moves import tell_moved
from coatpeg.handins.models import HandIn, HandInPeriod, OwnDue
from coatpeg.people.access import require_in_group
from coatpeg.people.accounts import memberships
from coatpeg.people.calendars import check_class_days, school_calendar
from coatpeg.people.models import Enrolment, Period, Person, TeachingGroup
from coatpeg.portfolios.writing import lock_portfolios


@dataclass(frozen=True, slots=True)
class Line:
    """One date that moves, as it is shown: of which hand-in and class, whose where it is not the class's."""

    group: str
    title: str
    which: str
    whose: str
    day: date
    to: date
    beyond: bool
    off: bool


@dataclass(frozen=True, slots=True)
class MovedOn:
    """What moves; ``deed`` names it for the undo."""

    lines: list[Line]
    deed: str


def move_on(
    person: Person, group_id: int, first: date, days: int, now: datetime, *, everywhere: bool, only_look: bool = False
) -> MovedOn:
    """Move every date from ``first`` on by so many school days, here or in all classes this person sets hand-ins in."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    check_class_days(group_id, first=first)
    if not 1 <= days <= MOST_DAYS:
        raise Invalid(
            f"{days} is no number of school days to move on by.",
            where="days",
            fix=f"Give a number from 1 to {MOST_DAYS}.",
        )
    groups = [group_id]
    if everywhere:
        groups = sorted(one.group_id for one in memberships(person) if Action.SET_HANDIN in one.may)
    calendar = school_calendar()
    if only_look:
        return MovedOn([line for one in groups for line in _lines(one, _moves(one, first, days, calendar))], "")
    name, lines = str(uuid4()), []
    with deed(person.pk, now) as doing:
        for one in groups:
            lock_portfolios(one)
            moves = _moves(one, first, days, calendar)
            lines += _lines(one, moves)
            _write(doing, one, [(move.of, move.to) for move in moves], name)
    return MovedOn(lines, name)


def _moves(group_id: int, first: date, days: int, calendar: SchoolCalendar) -> list[MovedDate]:
    return moved_on(_dates(group_id), first, days, calendar)


def _dates(group_id: int) -> Iterator[Dated]:
    """Every date of the hand-ins of a class that are not taken away: three queries."""
    handins = HandIn.objects.filter(group_id=group_id, taken_away_at=None)
    for pk, *days in handins.values_list("pk", "opens", "due_day", "closes_day"):
        for which, day in zip((Which.OPENS, Which.DUE, Which.CLOSES), days, strict=True):
            if day:
                yield Dated(pk, which, 0, day)
    of_periods = HandInPeriod.objects.filter(handin__in=handins, due_day__isnull=False)
    for pk, period, day in of_periods.values_list("handin_id", "period_id", "due_day"):
        if day:
            yield Dated(pk, Which.PERIOD, period, day)
    for pk, enrolment, day in OwnDue.objects.filter(handin__in=handins).values_list("handin_id", "enrolment_id", "day"):
        yield Dated(pk, Which.OWN, enrolment, day)


def _lines(group_id: int, moves: Sequence[MovedDate]) -> list[Line]:
    titles = dict(HandIn.objects.filter(group_id=group_id).values_list("pk", "title"))
    periods = dict(Period.objects.filter(group_id=group_id).values_list("pk", "name"))
    own = {one.of.whose for one in moves if one.of.which is Which.OWN}
    people = {one.pk: one.person for one in Enrolment.objects.filter(pk__in=own).select_related("person")}
    names = {pk: one.listed for pk, one in people.items()}
    whose: Mapping[Which, Mapping[int, str]] = {Which.PERIOD: periods, Which.OWN: names}
    group = TeachingGroup.objects.values_list("name", flat=True).get(pk=group_id)
    return [
        Line(
            group,
            titles[one.of.handin],
            one.of.which.value,
            whose.get(one.of.which, {}).get(one.of.whose, ""),
            one.of.day,
            one.to,
            one.beyond,
            one.off,
        )
        for one in moves
    ]


_FIELDS = {Which.OPENS: "opens", Which.DUE: "due_day", Which.CLOSES: "closes_day"}


def _write(doing: Deed, group_id: int, moves: Iterable[tuple[Dated, date]], name: str) -> None:
    """Write moved dates, one event of the class with their table, a notice for each hand-in whose due date moves."""
    by_handin: dict[int, list[tuple[Dated, date]]] = defaultdict(list)
    for of, to in moves:
        by_handin[of.handin].append((of, to))
    for handin in HandIn.objects.select_for_update().filter(pk__in=by_handin).order_by("pk"):
        for of, to in by_handin[handin.pk]:
            if of.which is Which.PERIOD:
                handin.periods.filter(period_id=of.whose).update(due_day=to)
            elif of.which is Which.OWN:
                handin.own_dues.filter(enrolment_id=of.whose).update(day=to)
            else:
                setattr(handin, _FIELDS[of.which], to)
        handin.version += 1
        handin.save()
        dues = {Which.DUE, Which.PERIOD, Which.OWN}
        tell_moved(doing, handin, due=any(of.which in dues for of, _ in by_handin[handin.pk]))
    if by_handin:
        table = [
            [of.handin, of.which.value, of.whose, of.day.isoformat(), to.isoformat()]
            for moved in by_handin.values()
            for of, to in moved
        ]
        doing.record("dates_moved", group_id, moved=table, deed=name)


@dataclass(frozen=True, slots=True)
class MovedBack:
    """So many dates are as before; so many were changed since and stay."""

    dates: int
    left: int


def move_back(person: Person, group_id: int, name: str, now: datetime) -> MovedBack:
    """Undo a moving on, in every class that it touched; a date that was changed since stays."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    events = list(Event.objects.filter(verb="dates_moved", data__deed=name).order_by("group_id"))
    if all(one.group_id != group_id for one in events):
        raise Gone("There is nothing of that to undo.", fix="Load the page again and look at how it stands.")
    done = left = 0
    with deed(person.pk, now) as doing:
        for event in events:
            require_in_group(person, Action.SET_HANDIN, event.group_id)
            lock_portfolios(event.group_id)
            stands = {(one.handin, one.which, one.whose): one for one in _dates(event.group_id)}
            back = []
            for handin, which, whose, before, after in event.data["moved"]:
                one = stands.get((handin, Which(which), whose))
                if one is not None and one.day.isoformat() == after:
                    back.append((one, date.fromisoformat(before)))
            _write(doing, event.group_id, back, "")
            done += len(back)
            left += len(event.data["moved"]) - len(back)
    return MovedBack(done, left)
