"""Hand-ins as the rules take them: what is asked, whose due moment is when."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, time
from decimal import Decimal
from itertools import groupby
from typing import Any

from django.db.models import QuerySet

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.handins.asking import (
    Asked,
    Due,
    DueSource,
    EffectiveDue,
    Student,
    effective_due,
    is_asked,
    is_named,
)
from coatpeg.events.prepared import Prepared
from coatpeg.handins.models import HandIn, HandInStudent, OwnDue
from coatpeg.people.rosters import Member


@dataclass(frozen=True, slots=True)
class Answer:
    """Whether one student is asked for a hand-in, and their due."""

    asked: bool
    due: EffectiveDue


@dataclass(frozen=True, slots=True)
class AskedHandIn:
    """A hand-in with everything that decides who is asked and when it is due for them."""

    id: int
    title: str
    points: Decimal | None
    step: Decimal
    asked: Asked
    pockets: tuple[int, ...]
    again: bool
    """Whether it may be handed in again until it is due."""
    since_last: bool
    """Whether of its logs only the rows are handed in that no other hand-in has yet."""
    own: Mapping[int, Due]
    """Dates that staff set for single students, by enrolment id."""

    @property
    def for_everyone(self) -> bool:
        """Whether its audience is the whole class."""
        return self.asked.audience is None and self.asked.only is None and not self.asked.but

    def opening(self, calendar: SchoolCalendar) -> datetime:
        """The UTC moment at which it opens: the beginning of its local day."""
        return datetime.combine(self.asked.opens, time(0), tzinfo=calendar.zoneinfo).astimezone(UTC)

    def answer(self, enrolment_id: int, student: Student, calendar: SchoolCalendar) -> Answer:
        """Whether this student is asked, and their due."""
        due = effective_due(self.asked, student, self.own.get(enrolment_id), calendar)
        meant = due.source is DueSource.OWN or is_named(self.asked, enrolment_id)
        return Answer(meant and is_asked(self.asked, student, due), due)

    def answers(self, of_group: Iterable[Member], calendar: SchoolCalendar) -> list[Answer]:
        """``answer`` for many students, in their order.

        Students who stand alike are one object (``rosters.members``); they share an answer unless staff set one of
        them a date of their own, and as far as the same of them are picked.
        """
        of_group = list(of_group)
        picks = self.asked.only is not None or bool(self.asked.but)
        if not (picks or self.own):
            alike = {id(one.student): one for one in of_group}
            by_student = {key: self.answer(one.enrolment_id, one.student, calendar) for key, one in alike.items()}
            return [by_student[id(one.student)] for one in of_group]
        return self._answers_of_some(of_group, calendar, picks=picks)

    def _answers_of_some(self, of_group: Iterable[Member], calendar: SchoolCalendar, *, picks: bool) -> list[Answer]:
        """The same where some of them were picked, or have a date of their own."""
        shared: dict[tuple[int, bool], Answer] = {}
        found = []
        for one in of_group:
            own = one.enrolment_id in self.own
            alike = (id(one.student), not picks or is_named(self.asked, one.enrolment_id))
            answer = None if own else shared.get(alike)
            if answer is None:
                answer = self.answer(one.enrolment_id, one.student, calendar)
                if not own:
                    shared[alike] = answer
            found.append(answer)
        return found

    @property
    def order(self) -> tuple[date, str, int]:
        """Hand-ins stand in due order; those without a due moment last."""
        return self.asked.earliest or date.max, self.title, self.id


_HANDINS = (
    HandIn.objects.filter(taken_away_at=None, draft=False)
    .values_list(
        "pk",
        "title",
        "opens",
        "due_day",
        "due_time",
        "for_everyone",
        "points",
        "step",
        "closes_day",
        "closes_time",
        "whom",
        "again",
        "since_last",
        "pockets",
        "periods__period_id",
        "periods__asked",
        "periods__due_day",
        "periods__due_time",
    )
    .order_by("pk", "pockets")
)
"""A row for each pocket and period of a hand-in. Laid out once, since that takes longer than fetching the rows."""
_OWN_DUES = OwnDue.objects.values_list("handin_id", "enrolment_id", "day", "at")
_OF_GROUP = Prepared(lambda group_id: _HANDINS.filter(group_id=group_id))
_WHOM = 10
"""The place of ``whom`` in a row."""


def _named(group_id: int) -> QuerySet[Any, Any]:
    """Whom hand-ins pick or leave out, one by one or as members of groups: (hand-in, enrolment)."""
    one_by_one = HandInStudent.objects.filter(handin__group_id=group_id).values_list("handin_id", "enrolment_id")
    in_groups = HandIn.objects.filter(group_id=group_id, whom="groups").values_list("pk", "groups__members")
    return one_by_one.union(in_groups, all=True)


_NAMED_OF_GROUP = Prepared(_named)
_OWN_OF_GROUP = Prepared(lambda group_id: _OWN_DUES.filter(handin__group_id=group_id))


def handins_of_group(group_id: int, handin_id: int | None = None) -> list[AskedHandIn]:
    """A group's hand-ins (or one of them) in due order, without those taken away and drafts.

    Two queries; three where a hand-in picks students.
    """
    rows = _OF_GROUP.run(group_id) if handin_id is None else _HANDINS.filter(group_id=group_id, pk=handin_id)
    own: dict[int, dict[int, Due]] = defaultdict(dict)
    for handin, enrolment, day, at in _OWN_OF_GROUP.run(group_id):
        own[handin][enrolment] = Due(day, at)
    of_handin = [(pk, list(of)) for pk, of in groupby(rows, key=lambda row: row[0])]
    named: dict[int, set[int]] = defaultdict(set)
    if any(of[0][_WHOM] != "all" for _, of in of_handin):
        for handin, enrolment in _NAMED_OF_GROUP.run(group_id):
            if enrolment is not None:
                named[handin].add(enrolment)
    return sorted((_asked_handin(of, own[pk], named[pk]) for pk, of in of_handin), key=lambda one: one.order)


def _asked_handin(rows: list[tuple[Any, ...]], own: Mapping[int, Due], named: Iterable[int]) -> AskedHandIn:
    """A hand-in from its rows, which differ in the pocket and the period only."""
    pk, title, opens, day, at, for_everyone, points, step, closes, closes_at, whom, again, since_last = rows[0][:13]
    pockets = dict.fromkeys(row[13] for row in rows if row[13] is not None)
    periods = {period: (asked, due, time) for *_, period, asked, due, time in rows if period is not None}
    dues = {period: Due(due, time) for period, (_, due, time) in periods.items() if due}
    audience = None if for_everyone else frozenset(period for period, (asked, _, _) in periods.items() if asked)
    closing = Due(closes, closes_at) if closes else None
    only = frozenset(named) if whom in ("groups", "students") else None
    but = frozenset(named) if whom == "but" else frozenset()
    asked = Asked(opens, Due(day, at) if day else None, dues or None, audience, closing, only, but)
    return AskedHandIn(pk, title, points, step, asked, tuple(pockets), again, since_last, own)
