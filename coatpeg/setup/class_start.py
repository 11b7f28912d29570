"""A class started in one go: its days, a template like another one's, sections of one's own, staff and list.

All of it is one transaction: either the class is there as it was shown, or nothing is. What it would look like is
found by doing it, looking, and rolling back. Decided here: everything but the name and the days can be left for later;
whoever starts a class for somebody else (an administrator) gives it a name and days only, since they are not in it. In
a class that began earlier, students are from today on: what was due before, in the class it is like, is not asked of
them.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import date, datetime
from typing import Any

from django.db import transaction
from django.db.models import Count, Q

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.typed.outline import Note, read_outline
from coatpeg.core.people.roster_plan import RosterPlan
from coatpeg.core.people.roster_table import Column, Table, guess, read_text
from coatpeg.core.policy import Action, Role, decide
from coatpeg.cupboard.models import CupboardItem
from coatpeg.handins.models import HandIn
from coatpeg.outlines import gallery
from coatpeg.outlines.models import Section
from coatpeg.people import staffing
from coatpeg.people.access import require_in_school, to_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person, StaffRole, TeachingGroup
from coatpeg.setup.roster import class_lists, enrolling, roster_folder
from coatpeg.setup.starting import start_group
from coatpeg.setup.template import galleries
from coatpeg.setup.template.changing import template_data
from coatpeg.setup.template.outlining import lay_out_outline

NOWHERE = 0
"""A group that nobody is in: a list is looked at against it before its class is there."""


@dataclass(frozen=True, slots=True)
class Like:
    """What a class begins like: a gallery template or a class; ``sections`` (new titles by key) are those wanted."""

    source: str
    id: int
    handins: bool = False
    sections: Mapping[str, str] | None = None
    cupboard: bool = False


@dataclass(frozen=True, slots=True)
class ClassPlan:
    """A class to start; ``outline`` adds sections of one's own, ``kind_unsaid`` is the kind that it leaves open."""

    name: str
    kind: TeachingGroup.Kind
    first: date
    last: date
    lead_id: int | None = None
    like: Like | None = None
    outline: str = ""
    kind_unsaid: PocketKind = PocketKind.EVIDENCE
    staff: tuple[tuple[int, Role], ...] = ()
    students: class_lists.ClassList | None = None
    seen: str | None = None
    by_itself: bool = False


@dataclass(frozen=True, slots=True)
class Started:
    """What was started: the class, and how many pockets, hand-ins and students it has; ``asked`` are requests."""

    group: TeachingGroup
    pockets: int = 0
    handins: int = 0
    students: int = 0
    asked: int = 0


def start_class(person: Person, of: ClassPlan, now: datetime) -> Started:
    """Start a class with all that was chosen for it, or not at all."""
    if of.lead_id not in (None, person.pk) and (of.like or of.outline.strip() or of.staff or of.students):
        raise Invalid("Whoever leads it lays it out and fills it.", where="lead", fix="Give it its name and days only.")
    with transaction.atomic():
        group = start_group(person, of.name, of.kind, of.first, of.last, now, lead_id=of.lead_id)
        pockets, handins = _lay_out(person, group, of, now)
        for other, role in of.staff:
            staffing.set_role(person, group.pk, other, role, now)
        if of.by_itself:
            roster_folder.set_by_itself(person, group.pk, now, by_itself=True)
        if of.students is None:
            return Started(group, pockets, handins)
        seen = class_lists.digest(class_lists.planned(person, group.pk, of.students, now))
        if of.seen is not None and seen != of.seen:
            raise Invalid(
                "The school's students have changed since you looked at this list.",
                where="list",
                fix="Look at the list once more; nothing has been started.",
            )
        today = school_calendar().local_day(now)
        done = enrolling.apply_list(
            person, group.pk, of.students, now, seen=seen, first=today if group.first < today else None
        )
        students = sum(done.counts.get(one, 0) for one in ("new", "joins"))
        return Started(group, pockets, handins, students, done.counts.get("asked", 0))


def _lay_out(person: Person, group: TeachingGroup, of: ClassPlan, now: datetime) -> tuple[int, int]:
    if group.kind == TeachingGroup.Kind.CASELOAD:
        return 0, 0
    pockets = handins = 0
    if of.like is not None:
        wanted, like = of.like.sections, of.like
        brought = (
            galleries.adopt(person, group.pk, like.id, now, wanted)
            if like.source == "gallery"
            else galleries.carry_over(
                person, group.pk, like.id, now, handins=like.handins, wanted=wanted, cupboard=like.cupboard
            )
        )
        pockets, handins = brought.pockets, brought.handins
    if of.outline.strip():
        pockets += lay_out_outline(person, group.pk, of.outline, of.kind_unsaid, None, now, of_sections=True).pockets
    return pockets, handins


@dataclass(frozen=True, slots=True)
class Looked:
    """How a class would begin: its sections with their pockets, its hand-ins, and what is told of its outline."""

    sections: list[dict[str, Any]] = field(default_factory=list)
    handins: list[dict[str, Any]] = field(default_factory=list)
    notes: tuple[Note, ...] = ()
    problems: tuple[Note, ...] = ()


def look(person: Person, of: ClassPlan, now: datetime) -> Looked:
    """How a class would begin; nothing is written. A name that is not there yet is no mistake."""
    require_in_school(person, Action.START_CLASS)
    outline = read_outline(of.outline, of.kind_unsaid, of_sections=True) if of.outline.strip() else None
    problems = outline.problems if outline else ()
    plan = replace(of, name=of.name.strip() or "…", lead_id=None, outline="" if problems else of.outline)
    if of.kind == TeachingGroup.Kind.CASELOAD:
        return Looked()
    with transaction.atomic():
        group = start_group(person, plan.name, plan.kind, plan.first, plan.last, now)
        _lay_out(person, group, plan, now)
        sections = template_data(person, group.pk, now)["sections"]
        rows = HandIn.objects.filter(group=group).order_by("due_day", "pk").values("title", "due_day", "draft")
        handins: list[dict[str, Any]] = [dict(one) for one in rows]
        transaction.set_rollback(True)
    shown = [one for one in sections if one["pockets"] or one["units"] or outline or of.like]
    return Looked(shown, handins, outline.notes if outline else (), problems)


@dataclass(frozen=True, slots=True)
class LookedList:
    """A pasted list as read, and what it would do in a new class."""

    table: Table
    of: class_lists.ClassList
    plan: RosterPlan
    seen: str


@dataclass(frozen=True, slots=True)
class PastedList:
    """A pasted list, with what was said of it."""

    text: str
    columns: tuple[Column, ...] | None
    as_new: frozenset[int]
    family_first: bool = False

    def read(self) -> class_lists.ClassList:
        """The list; its columns are guessed where they are not said, or are as many as another list has."""
        table = read_text(self.text)
        rows = tuple(tuple(row) for row in table.rows)
        said = self.columns if self.columns and len(self.columns) == len(rows[0]) else guess(table)
        return class_lists.ClassList(rows, said, self.as_new, family_first=self.family_first)


def look_at_list(person: Person, pasted: PastedList, now: datetime) -> LookedList:
    """What a pasted list would do in a class that begins; nothing is written."""
    require_in_school(person, Action.START_CLASS)
    of = pasted.read()
    plan = class_lists.planned(person, NOWHERE, of, now)
    return LookedList(read_text(pasted.text), of, plan, class_lists.digest(plan))


def choices(person: Person, now: datetime) -> dict[str, Any]:
    """What a class can begin with: the running or next term, templates of the gallery, classes of one's own."""
    require_in_school(person, Action.START_CLASS)
    calendar = school_calendar()
    today = calendar.local_day(now)
    term = _term_for(calendar, today)
    return {
        "today": today,
        "term": {"name": term.name, "first": term.first, "last": term.last} if term else None,
        "last_of_calendar": max((one.last for one in calendar.terms), default=None),
        "gallery": gallery.shown(person),
        "classes": _classes(person, today),
    }


def _term_for(calendar: SchoolCalendar, today: date) -> Term | None:
    """The term that runs, else the next one; the last week of a term belongs to planning the next."""
    terms = sorted(calendar.terms, key=lambda one: one.first)
    return next((one for one in terms if today <= one.last), None)


def _classes(person: Person, today: date) -> list[dict[str, Any]]:
    """Classes whose template the person may see, the latest first: sections, and how much could come along."""
    of_mine = StaffRole.objects.on(today).filter(person=person).values_list("group_id", flat=True)
    groups = TeachingGroup.objects.filter(pk__in=of_mine).exclude(kind=TeachingGroup.Kind.CASELOAD)
    asked = dict(
        HandIn.objects.filter(group__in=groups, taken_away_at=None)
        .values_list("group_id")
        .annotate(number=Count("pk"))
        .values_list("group_id", "number")
    )
    sections: dict[int, list[dict[str, Any]]] = {}
    rows = Section.objects.filter(template__group__in=groups, was_unit=False, unit=None).order_by("position", "pk")
    counted = rows.annotate(number=Count("pockets", filter=Q(pockets__retired_at=None)))
    for group_id, key, title, number in counted.values_list("template__group_id", "key", "title", "number"):
        sections.setdefault(group_id, []).append({"key": key, "title": title, "pockets": number})
    lying = dict(
        CupboardItem.objects.filter(group__in=groups, removed_at=None)
        .values_list("group_id")
        .annotate(number=Count("pk"))
        .values_list("group_id", "number")
    )
    return [
        {
            "id": one.pk,
            "name": one.name,
            "sections": sections.get(one.pk, []),
            "handins": asked.get(one.pk, 0),
            "items": lying.get(one.pk, 0),
        }
        for one in groups.order_by("-first", "name")
        if decide(Action.SEE_TEMPLATE, to_group(person, one.pk)).allowed
    ]
