"""The students of a group as the rules see them and as lists show them."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any, NamedTuple

from coatpeg.core.calendar.school_days import Span
from coatpeg.core.handins.asking import Adjustment, Student
from coatpeg.core.outlines.adjusting import WantedChange
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.people import names
from coatpeg.events.prepared import OfGroup, Prepared
from coatpeg.people import models

# Laid out once: working out the columns took longer than fetching the rows. A row for each period membership and
# working group of an enrolment (nearly always one).
_ENROLMENT_ROWS = models.Enrolment.objects.values_list(
    "pk",
    "person_id",
    "person__given_name",
    "person__family_name",
    "person__family_first",
    "picture",
    "tint",
    "first",
    "last",
    "periods__period_id",
    "periods__first",
    "periods__last",
    "periods__period__name",
    "working_groups__name",
    "absences__first",
    "absences__last",
)
_ENROLMENTS = OfGroup(_ENROLMENT_ROWS, "group_id", "pk")
_ADJUSTMENTS = models.Adjustment.objects.values_list(
    "person_id", "extra_days", "first", "last", "fewer_artefacts", "percent", "spoken", "without"
)
_ADJUSTED_IN = Prepared(lambda group_id: _ADJUSTMENTS.filter(person__enrolments__group_id=group_id))


@dataclass(frozen=True, slots=True)
class Member:
    """One student of a group: names, peg, period and groups of today, and what the rules need."""

    enrolment_id: int
    person_id: int
    given_name: str
    family_name: str
    family_first: bool
    picture: str
    tint: int
    period: str
    period_id: int | None
    groups: tuple[str, ...]
    student: Student

    @property
    def listed(self) -> str:
        """``Dube, Thandi``"""
        return names.listed(self.family_name, self.given_name, family_first=self.family_first)

    @property
    def full_name(self) -> str:
        """``Thandi Dube``"""
        return names.full(self.family_name, self.given_name, family_first=self.family_first)


def members(group_id: int, today: date, *, enrolments: Collection[int] | None = None) -> list[Member]:
    """All students ever enrolled in a group (or some of them), by surname: two queries, however many they are.

    Students who stand alike for the rules share one ``Student``.
    """
    of_enrolment: dict[int, _Gathered] = {}
    for row in _ENROLMENTS.run(group_id, enrolments):
        gathered = of_enrolment.get(row[0])
        if gathered is None:
            gathered = of_enrolment[row[0]] = _Gathered(row[:9], {}, {}, {})
        gathered.add(*row[9:])
    adjustments = _adjusted(_ADJUSTED_IN.run(group_id))
    alike: dict[tuple[Any, ...], _Place] = {}
    found = [one.member(adjustments, alike, today) for one in of_enrolment.values()]
    return sorted(found, key=lambda one: names.sort_key(one.family_name, one.given_name, one.enrolment_id))


class _Gathered(NamedTuple):
    """An enrolment and what its rows hold: period memberships with the period's name, working groups, absences."""

    row: tuple[Any, ...]
    periods: dict[tuple[int, date, date | None], str]
    groups: dict[str, None]
    away: dict[tuple[date, date | None], None]

    def add(
        self,
        period: int | None,
        first: date,
        last: date | None,
        name: str,
        group: str | None,
        away_first: date | None,
        away_last: date | None,
    ) -> None:
        if away_first is not None:
            self.away[away_first, away_last] = None
        if period is not None:
            self.periods[period, first, last] = name
        if group is not None:
            self.groups[group] = None

    def member(self, adjustments: Mapping[int, _Adjusted], alike: dict[tuple[Any, ...], _Place], today: date) -> Member:
        pk, person_id, given, family, family_first, picture, tint, first, last = self.row
        # Most of a year group stand alike: what they share is made once.
        key = (first, last, *self.periods, None, *self.away, person_id if person_id in adjustments else 0)
        place = alike.get(key)
        if place is None:
            mine = adjustments.get(person_id, NOTHING_ADJUSTED)
            periods = tuple((one, Span(since, until)) for one, since, until in self.periods)
            away = tuple(Span(*span) for span in self.away)
            student = Student(Span(first, last), periods, tuple(mine.days), away, tuple(mine.wants))
            period_id = student.period_on(today)
            period = next((name for (one, *_), name in self.periods.items() if one == period_id), "")
            place = alike[key] = _Place(period, period_id, student)
        groups = tuple(self.groups)
        return Member(
            pk,
            person_id,
            given,
            family,
            family_first,
            picture,
            tint,
            place.period,
            place.period_id,
            groups,
            place.student,
        )


class _Place(NamedTuple):
    """What students share who stand alike: the period of today, and how the rules see them."""

    period: str
    period_id: int | None
    student: Student


class _Adjusted(NamedTuple):
    """One student's adjustments: of due moments, of what is wanted."""

    days: list[Adjustment]
    wants: list[WantedChange]


NOTHING_ADJUSTED = _Adjusted([], [])


def _adjusted(rows: Iterable[tuple[Any, ...]]) -> dict[int, _Adjusted]:
    """Adjustments by person, from rows of ``_ADJUSTMENTS``."""
    found: dict[int, _Adjusted] = {}
    for person, days, first, last, fewer, percent, spoken, without in rows:
        mine = found.setdefault(person, _Adjusted([], []))
        span = Span(first, last)
        if days:
            mine.days.append(Adjustment(days, span))
        change = WantedChange(span, fewer, percent, spoken, frozenset(PocketKind(kind) for kind in without))
        if change.changes_anything:
            mine.wants.append(change)
    return found


def wants_of(person_id: int) -> tuple[WantedChange, ...]:
    """What adjustments change about what is wanted of one student, in every class: one query."""
    return tuple(_adjusted(_ADJUSTMENTS.filter(person_id=person_id)).get(person_id, NOTHING_ADJUSTED).wants)
