"""The students of a group as the rules see them and as lists show them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any

from coatpeg.core import names
from coatpeg.core.asking import Adjustment, Span, Student
from coatpeg.people import models


@dataclass(frozen=True, slots=True)
class Member:
    """One student of a group: names, peg, period and groups of today, and what the rules need."""

    enrolment_id: int
    person_id: int
    given_name: str
    family_name: str
    picture: str
    tint: int
    period: str
    period_id: int | None
    groups: tuple[str, ...]
    student: Student

    @property
    def listed(self) -> str:
        """``Dube, Thandi``"""
        return names.listed(self.family_name, self.given_name)


def members(group_id: int, today: date, *, enrolment_id: int | None = None) -> list[Member]:
    """All students ever enrolled in a group (or one of them), by surname: four queries, however many they are."""
    enrolments = models.Enrolment.objects.filter(group_id=group_id)
    if enrolment_id is not None:
        enrolments = enrolments.filter(pk=enrolment_id)
    rows = enrolments.values_list(
        "pk", "person_id", "person__given_name", "person__family_name", "picture", "tint", "first", "last"
    )
    parts = _parts(group_id, enrolment_id)
    found = [_member(row, parts, today) for row in rows]
    return sorted(found, key=lambda one: names.sort_key(one.family_name, one.given_name, one.enrolment_id))


@dataclass(frozen=True, slots=True)
class _Parts:
    """What hangs on the enrolments of a group, by enrolment or person id."""

    period_names: Mapping[int, str]
    periods: Mapping[int, list[tuple[int, Span]]]
    groups: Mapping[int, list[str]]
    adjustments: Mapping[int, list[Adjustment]]


def _parts(group_id: int, enrolment_id: int | None) -> _Parts:
    narrow: dict[str, Any] = {} if enrolment_id is None else {"enrolment_id": enrolment_id}
    periods: dict[int, list[tuple[int, Span]]] = defaultdict(list)
    memberships = models.PeriodMembership.objects.filter(enrolment__group_id=group_id, **narrow)
    period_names: dict[int, str] = {}
    for enrolment, period, first, last, name in memberships.values_list(
        "enrolment_id", "period_id", "first", "last", "period__name"
    ):
        periods[enrolment].append((period, Span(first, last)))
        period_names[period] = name
    groups: dict[int, list[str]] = defaultdict(list)
    of_groups = models.WorkingGroup.members.through.objects.filter(workinggroup__group_id=group_id, **narrow)
    for enrolment, name in of_groups.values_list("enrolment_id", "workinggroup__name"):
        groups[enrolment].append(name)
    adjustments: dict[int, list[Adjustment]] = defaultdict(list)
    of_people = models.Adjustment.objects.filter(person__enrolments__group_id=group_id)
    for person, extra, first, last in of_people.values_list("person_id", "extra_days", "first", "last"):
        adjustments[person].append(Adjustment(extra, Span(first, last)))
    return _Parts(period_names, periods, groups, adjustments)


def _member(row: tuple[Any, ...], parts: _Parts, today: date) -> Member:
    pk, person_id, given, family, picture, tint, first, last = row
    student = Student(Span(first, last), tuple(parts.periods.get(pk, ())), tuple(parts.adjustments.get(person_id, ())))
    period_id = student.period_on(today)
    return Member(
        pk,
        person_id,
        given,
        family,
        picture,
        tint,
        parts.period_names.get(period_id, "") if period_id else "",
        period_id,
        tuple(parts.groups.get(pk, ())),
        student,
    )
