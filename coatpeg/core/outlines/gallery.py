"""A template as a document: published in the gallery, adopted, compared, carried over.

A document is plain data: sections with their pockets, each under a key that stays through all versions, so that what
changed since a template was adopted can be told and brought in one by one. Decided here: the day from which a pocket
is open belongs to a class's calendar and is not published; carried over within a school it moves by school week.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from enum import StrEnum
from typing import Any

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.repeat import Question, Unit
from coatpeg.core.outlines.settings import plan_from_data, plan_to_data
from coatpeg.core.outlines.versions import for_a_copy


@dataclass(frozen=True, slots=True)
class KeyedPocket:
    """A pocket's settings under its key."""

    key: str
    plan: PocketPlan


@dataclass(frozen=True, slots=True)
class KeyedSection:
    """A section with its pockets under its key."""

    key: str
    title: str
    pockets: tuple[KeyedPocket, ...]
    repeats: bool = False
    units: tuple[Unit, ...] = ()
    """Of one that repeats."""


Document = tuple[KeyedSection, ...]


def to_data(document: Document) -> list[dict[str, Any]]:
    """A document as plain data, without what belongs to one class's calendar."""
    return [
        {
            "key": section.key,
            "title": section.title,
            "pockets": [_pocket_data(one) for one in section.pockets],
            **({"units": [_unit_data(one) for one in section.units]} if section.repeats else {}),
        }
        for section in document
    ]


def _unit_data(unit: Unit) -> dict[str, Any]:
    questions = [{"key": one.key, "text": one.text} for one in unit.questions]
    return {"key": unit.key, "title": unit.title, "questions": questions}


def _unit(data: Mapping[str, Any]) -> Unit:
    questions = tuple(Question(one["key"], one["text"]) for one in data["questions"])
    return Unit(data["key"], data["title"], questions)


def _pocket_data(pocket: KeyedPocket) -> dict[str, Any]:
    """A pocket for other classes: without the day from which it is open, its versions dealt to nobody yet."""
    plan = pocket.plan
    data = plan_to_data(replace(plan, variants=for_a_copy(plan.variants) if plan.variants else None))
    del data["opens"]
    return {"key": pocket.key, **data}


def from_data(data: Sequence[Mapping[str, Any]]) -> Document:
    """The reverse of ``to_data``."""
    return tuple(
        KeyedSection(
            section["key"],
            section["title"],
            tuple(_pocket(one) for one in section["pockets"]),
            "units" in section,
            tuple(_unit(one) for one in section.get("units", ())),
        )
        for section in data
    )


def _pocket(data: Mapping[str, Any]) -> KeyedPocket:
    return KeyedPocket(data["key"], plan_from_data(data))


def only(document: Document, wanted: Mapping[str, str] | None) -> Document:
    """The sections wanted, by key, under the titles given (empty: their own); all of them where nothing is said."""
    if wanted is None:
        return document
    return tuple(replace(one, title=wanted[one.key] or one.title) for one in document if one.key in wanted)


class News(StrEnum):
    """What a newer version of a template has otherwise."""

    ADDED = "added"
    CHANGED = "changed"
    GONE = "gone"


@dataclass(frozen=True, slots=True)
class Novelty:
    """One pocket that is new, other or gone in a newer version; ``fields`` names what differs."""

    what: News
    key: str
    title: str
    section: str
    fields: tuple[str, ...] = ()


def changes(old: Document, new: Document) -> tuple[Novelty, ...]:
    """What changed from one version to another, in the order of the newer one; what is gone last."""
    before, after = dict(_by_key(old)), dict(_by_key(new))
    found = []
    for key, (section, plan) in after.items():
        if key not in before:
            found.append(Novelty(News.ADDED, key, plan.title, section))
        elif fields := _differing(before[key][1], plan):
            found.append(Novelty(News.CHANGED, key, plan.title, section, fields))
    found += _units_changed(old, new)
    gone = [Novelty(News.GONE, key, plan.title, section) for key, (section, plan) in before.items() if key not in after]
    return (*found, *gone)


def _units_changed(old: Document, new: Document) -> Iterator[Novelty]:
    """Sections that repeat for other units, or units with other questions, than before; ``key`` is the section's."""
    before = {section.key: _published(section.units) for section in old}
    for section in new:
        if section.repeats and _published(section.units) != before.get(section.key, ()):
            yield Novelty(News.CHANGED, section.key, section.title, section.title, ("units",))


def _published(units: Sequence[Unit]) -> tuple[Unit, ...]:
    """Units without their days, which belong to a class's calendar."""
    return tuple(replace(one, opens=None) for one in units)


def section_in(document: Document, key: str) -> KeyedSection | None:
    """A section of a document by key."""
    return next((section for section in document if section.key == key), None)


def with_own_days(units: Sequence[Unit], own: Sequence[Unit]) -> tuple[Unit, ...]:
    """Units of a newer version, those that a class has already with the class's own days."""
    days = {one.key: one.opens for one in own}
    return tuple(replace(one, opens=days.get(one.key)) for one in units)


def _by_key(document: Document) -> Iterator[tuple[str, tuple[str, PocketPlan]]]:
    for section in document:
        for pocket in section.pockets:
            yield pocket.key, (section.title, replace(pocket.plan, opens=None))


def _differing(one: PocketPlan, other: PocketPlan) -> tuple[str, ...]:
    names = PocketPlan.__dataclass_fields__
    return tuple(name for name in names if getattr(one, name) != getattr(other, name))


def pocket_in(document: Document, key: str) -> tuple[KeyedSection, KeyedPocket] | None:
    """A pocket of a document with its section, by key."""
    for section in document:
        for pocket in section.pockets:
            if pocket.key == key:
                return section, pocket
    return None


def moved_by_week(day: date, source: Term, target: Term, calendar: SchoolCalendar) -> date:
    """The same weekday in the same school week of another term.

    Weeks without school are not counted, so that week 5 of teaching stays week 5 of teaching; past the end of the other
    term its last school week is taken. A day that is no school day there moves to the next one that is.
    """
    weeks = [week for week in calendar.weeks(source) if week.school_days]
    others = [week for week in calendar.weeks(target) if week.school_days]
    if not weeks or not others:
        return target.first + (day - source.first)
    place = max((number for number, week in enumerate(weeks) if week.monday <= day), default=0)
    monday = others[min(place, len(others) - 1)].monday
    moved = min(max(monday + timedelta(days=day.weekday()), target.first), target.last)
    return moved if calendar.is_school_day(moved) else min(calendar.after(moved, 1), target.last)
