"""The class list: seeing it, reading a new one and saying what that would do, swapping pegs.

Applying a list makes portfolios and so lives a room higher (``setup.roster.enrolling``).
"""

from __future__ import annotations

import hashlib
import json
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import astuple, dataclass, replace
from datetime import date, datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.people.names import search_key, sort_key
from coatpeg.core.people.places import Places
from coatpeg.core.people.roster_plan import Entry, Known, RosterPlan, check_columns, plan, read_entry
from coatpeg.core.people.roster_table import MOST_LINES, Column, Table, read_text
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import deed
from coatpeg.people.access import led_students, require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import (
    Enrolment,
    Period,
    Person,
    RosterDrop,
    SignInCard,
    StaffRole,
    TeachingGroup,
    WorkingGroup,
)
from coatpeg.people.rosters import Member, members
from coatpeg.setup.roster.roster_files import FileTable, read_bytes


@dataclass(frozen=True, slots=True)
class ClassList:
    """A list as a person has it before them: rows, what each column holds, which lines are somebody new after all.

    ``drop``: the list of the school's system that it came as; a line that stands so in it counts as the school's word.
    """

    rows: tuple[tuple[str, ...], ...]
    columns: tuple[Column, ...]
    as_new: frozenset[int] = frozenset()
    drop: int | None = None
    family_first: bool = False
    """Its names are written family name first."""
    turned: frozenset[int] = frozenset()
    """Lines in which it is the other way."""


def read_pasted(person: Person, group_id: int, text: str) -> Table:
    """The table in a pasted text."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    return read_text(text)


def read_file(person: Person, group_id: int, data: bytes, name: str, now: datetime, chosen: str = "") -> FileTable:
    """The table in a CSV, XLSX or OneRoster file; of several classes the one called like ours, or ``chosen``."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    group = TeachingGroup.objects.get(pk=group_id)
    return read_bytes(data, name, school_calendar().local_day(now), group.name, chosen)


def preview(person: Person, group_id: int, of: ClassList, now: datetime) -> RosterPlan:
    """What a list would do, line by line; a fixed number of queries."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    return planned(person, group_id, of, now)


def planned(person: Person, group_id: int, of: ClassList, now: datetime) -> RosterPlan:
    """The plan of a list against what stands in the class now, as far as this person may."""
    entries = _as_here(group_id, read_entries(of))
    today = school_calendar().local_day(now)
    known = known_students(group_id, today, Rights.of(person))
    return plan(entries, known, of.as_new, _lines_of_school(group_id, of))


def _as_here(group_id: int, entries: Iterable[Entry]) -> list[Entry]:
    """The lines with periods and groups spelled as the class has them, or as the list first does."""
    periods, groups = (
        Places(of.objects.filter(group_id=group_id).order_by("pk").values_list("name", flat=True))
        for of in (Period, WorkingGroup)
    )
    return [replace(one, period=periods.as_here(one.period), group=groups.as_here(one.group)) for one in entries]


def digest(of: RosterPlan) -> str:
    """A plan in short: the same where a list would do the same, so that nothing is applied that nobody saw."""
    seen = [
        (
            line.number,
            line.verdict.value,
            line.person,
            line.enrolment,
            [astuple(one) for one in line.changes],
        )
        for line in of.lines
    ]
    return hashlib.sha256(json.dumps([seen, of.missing]).encode()).hexdigest()[:32]


def _lines_of_school(group_id: int, of: ClassList) -> frozenset[int]:
    """Lines that stand so, under the same columns, in the pending list of the school's system."""
    if of.drop is None:
        return frozenset()
    drop = RosterDrop.objects.filter(pk=of.drop, group_id=group_id, state=RosterDrop.State.PENDING).first()
    if drop is None or [one.value for one in of.columns] != drop.table.get("columns"):
        return frozenset()
    there = {tuple(row) for row in drop.table["rows"]}
    return frozenset(number for number, row in enumerate(of.rows, start=1) if row in there)


@dataclass(frozen=True, slots=True)
class Rights:
    """Whom a person may bring in, and whose name, e-mail and number they may change."""

    everybody: bool
    leads: frozenset[int]
    alone: frozenset[int]

    @staticmethod
    def of(person: Person) -> Rights:
        """Those of an administrator, or of a lead by the classes they lead."""
        return Rights(person.is_administrator, *led_students(person))


def read_entries(of: ClassList) -> list[Entry]:
    """The lines of a list, read by its columns."""
    if len(of.rows) > MOST_LINES:
        raise Invalid(
            f"The list has {len(of.rows)} lines; {MOST_LINES} is the most.", where="rows", fix="Bring it in parts."
        )
    widths = {len(row) for row in of.rows}
    if widths != {len(of.columns)}:
        raise Invalid("The lines of the list differ in length.", where="rows", fix="Read the list again.")
    check_columns(of.columns, len(of.columns))
    return [
        read_entry(row, of.columns, family_first=of.family_first, turned=number in of.turned)
        for number, row in enumerate(of.rows, start=1)
    ]


def known_students(group_id: int, today: date, rights: Rights) -> list[Known]:
    """Every student of the school, those of the group with their enrolment, period and working group of today."""
    here = {one.person_id: one for one in members(group_id, today)}
    groups: dict[int, list[str]] = defaultdict(list)
    elsewhere = Enrolment.objects.exclude(group_id=group_id).exclude(group__kind=TeachingGroup.Kind.CASELOAD)
    for person_id, name in elsewhere.values_list("person_id", "group__name"):
        groups[person_id].append(name)
    found = []
    students = Person.objects.filter(is_staff=False, same_as=None).order_by("pk")
    fields = ("pk", "family_name", "given_name", "email", "number", "family_first")
    for pk, family, given, email, number, family_first in students.values_list(*fields):
        member = here.get(pk)
        entry = Entry(
            family,
            given,
            email,
            number or "",
            member.period if member else "",
            member.groups[0] if member and member.groups else "",
            family_first,
        )
        last = member.student.enrolled.last if member else None
        found.append(
            Known(
                pk,
                entry,
                member.enrolment_id if member else None,
                last is not None and last < today,
                tuple(groups.get(pk, ())),
                may_bring=rights.everybody or pk in rights.leads,
                may_change=rights.everybody or pk in rights.alone,
            )
        )
    return found


MOST_FOUND = 8
SHORTEST = 2
"""Letters from which on somebody is looked for."""


def find_known(person: Person, group_id: int, text: str, now: datetime) -> list[dict[str, Any]]:
    """Students by a part of their name whom this person may bring into a class, and who are not in it.

    Of others nothing is said, as everywhere. ``classes`` are those in which this person is on the staff.
    """
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    wanted = search_key(text).split()
    if len("".join(wanted)) < SHORTEST:
        return []
    rights, today = Rights.of(person), school_calendar().local_day(now)
    students = Person.objects.filter(is_staff=False, same_as=None).exclude(enrolments__group_id=group_id)
    if not rights.everybody:
        students = students.filter(pk__in=rights.leads)
    found = [one for one in students if all(part in search_key(one.full_name) for part in wanted)]
    found = sorted(found, key=lambda one: sort_key(one.family_name, one.given_name, one.pk))[:MOST_FOUND]
    mine = StaffRole.objects.on(today).filter(person=person).values("group_id")
    classes: dict[int, list[str]] = defaultdict(list)
    known = Enrolment.objects.filter(person__in=found).exclude(group__kind=TeachingGroup.Kind.CASELOAD)
    known = known if rights.everybody else known.filter(group_id__in=mine)
    for pk, name in known.order_by("group__name").values_list("person_id", "group__name"):
        classes[pk].append(name)
    return [
        {
            "person": one.pk,
            "name": one.listed,
            "family": one.family_name,
            "given": one.given_name,
            "number": one.number or "",
            "email": one.email,
            "classes": classes[one.pk],
        }
        for one in found
    ]


def rejected(of: ClassList, heading: Sequence[str], lines: RosterPlan) -> list[list[str]]:
    """The lines that cannot be taken, with the reason in a column of its own, under the list's heading."""
    titles = list(heading) if heading else [column.value for column in of.columns]
    rows = [[*titles, "reason"]]
    for line, row in zip(lines.lines, of.rows, strict=True):
        if line.verdict in ("incomplete", "unreadable", "twice"):
            rows.append([*row, f"{line.why} {line.fix}".strip()])
    return rows


def listed_names(group_id: int, enrolments: Sequence[int], now: datetime) -> dict[int, str]:
    """Names as lists show them, by enrolment, in the order of names."""
    wanted = set(enrolments)
    of_group = members(group_id, school_calendar().local_day(now)) if wanted else []
    return {one.enrolment_id: one.listed for one in of_group if one.enrolment_id in wanted}


def roster(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The class list as it stands: everybody ever enrolled, by surname, with what belongs to the list."""
    standings = require_in_group(person, Action.SEE_ROSTER, group_id)
    today = school_calendar().local_day(now)
    of_group = members(group_id, today)
    people = {
        pk: (username, email, number, to_complete)
        for pk, username, email, number, to_complete in Person.objects.filter(
            enrolments__group_id=group_id
        ).values_list("pk", "username", "email", "number", "to_complete")
    }
    rights = Rights.of(person)
    group = TeachingGroup.objects.get(pk=group_id)
    cards = dict(SignInCard.objects.filter(group_id=group_id, voided_at=None).values_list("person_id", "made_at"))
    return {
        "group": {"id": group.pk, "name": group.name, "kind": group.kind, "first": group.first, "last": group.last},
        "today": today,
        "may_change": decide(Action.KEEP_ROSTER, standings).allowed,
        "students": [
            {
                **_listed(one, people[one.person_id], today),
                "card": cards.get(one.person_id),
                "may_give_password": rights.everybody or one.person_id in rights.alone,
            }
            for one in of_group
        ],
    }


def _listed(member: Member, account: tuple[str | None, str, str | None, bool], today: date) -> dict[str, Any]:
    username, email, number, to_complete = account
    enrolled = member.student.enrolled
    return {
        "id": member.enrolment_id,
        "family_name": member.family_name,
        "given_name": member.given_name,
        "family_first": member.family_first,
        "picture": member.picture,
        "tint": member.tint,
        "period": member.period,
        "groups": member.groups,
        "username": username or "",
        "email": email,
        "number": number or "",
        "to_complete": to_complete,
        "first": enrolled.first,
        "last": enrolled.last,
        "left": enrolled.last is not None and enrolled.last < today,
        "find": search_key(f"{member.full_name} {number or ''}"),
    }


def swap_pegs(person: Person, group_id: int, one_id: int, other_id: int, now: datetime) -> None:
    """Let two students of a class change pegs."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        found = {one.pk: one for one in Enrolment.objects.filter(group_id=group_id, pk__in=(one_id, other_id))}
        if len(found) != 2:
            raise Gone("These are not two students of the class.", fix="Choose two from the list.")
        one, other = found[one_id], found[other_id]
        pegs = (one.picture, one.tint, one.lap), (other.picture, other.tint, other.lap)
        # A peg is unique in its class: the first one steps aside while they change.
        one.picture, one.tint, one.lap = "", 0, one.pk % 30_000
        one.save(update_fields=["picture", "tint", "lap"])
        other.picture, other.tint, other.lap = pegs[0]
        other.save(update_fields=["picture", "tint", "lap"])
        one.picture, one.tint, one.lap = pegs[1]
        one.save(update_fields=["picture", "tint", "lap"])
        doing.record("pegs_swapped", group_id, students=[one_id, other_id])
