"""What lies in a cupboard, as each person is shown it: a fixed number of queries, however much lies there.

Decided here: students are shown what is not for staff only, has opened, and is for their period; staff see all, with
whether students see it now, how many have read it and how many have a copy. A student sees which of it they have.
"""

from __future__ import annotations

import re
from collections import defaultdict
from datetime import date, datetime
from typing import Any

from django.db.models import Count

from coatpeg.core.cupboard.items import Shown, why_not
from coatpeg.core.policy import Action, decide
from coatpeg.cupboard import copies, laying, lending
from coatpeg.cupboard.keeping import no_item
from coatpeg.cupboard.models import CupboardCopy, CupboardItem, CupboardReading
from coatpeg.events.recording import deed
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_in_group, to_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import face
from coatpeg.people.models import Enrolment, GroupMember, Period, Person, WorkingGroup
from coatpeg.people.rosters import Member, members


def shown(item: CupboardItem) -> Shown:
    """To whom an item is shown, as the rules take it."""
    return Shown(item.staff_only, item.opens, frozenset(item.periods), frozenset(item.groups))


def cupboard(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The cupboard of a class."""
    standings = require_in_group(person, Action.SEE_CUPBOARD, group_id)
    today = school_calendar().local_day(now)
    items = list(
        CupboardItem.objects.filter(group_id=group_id, removed_at=None).select_related("stored", "lent_from__group")
    )
    student = _student(person, group_id, today)
    if student is not None:
        inside = _groups(student)
        items = [one for one in items if shown(one).to_student(today, student.period_id, inside)]
        mine = _mine(student, items)
        read = set(CupboardReading.objects.filter(enrolment=student.enrolment_id).values_list("item_id", flat=True))
        lines = [{**item_data(one, today), "mine": mine[one.pk], "read": int(one.pk in read)} for one in items]
    else:
        had = _counts(CupboardCopy.objects.filter(item__group_id=group_id), "portfolio")
        read_by = _counts(CupboardReading.objects.filter(item__group_id=group_id), "enrolment")
        lines = [
            {**item_data(one, today), "copies": had.get(one.pk, 0), "read": read_by.get(one.pk, 0)} for one in items
        ]
    periods = Period.objects.filter(group_id=group_id) if student is None else Period.objects.none()
    groups = WorkingGroup.objects.filter(group_id=group_id) if student is None else WorkingGroup.objects.none()
    return {
        "items": sorted(lines, key=lambda one: (one["heading"] == "", _numbered(one["heading"]), one["id"])),
        "keeps": decide(Action.KEEP_CUPBOARD, standings).allowed,
        "periods": [{"id": one.pk, "title": one.name} for one in periods],
        "groups": [{"id": one.pk, "title": one.name} for one in groups],
    }


def _numbered(heading: str) -> list[tuple[int, str]]:
    """A heading as it is sorted: week 9 stands before week 10."""
    parts = re.split(r"(\d+)", heading.casefold())
    return [(int(one), "") if place % 2 else (0, one) for place, one in enumerate(parts)]


def _counts(rows: Any, what: str) -> dict[int, int]:
    """How many different ones each item has."""
    return dict(rows.order_by().values_list("item").annotate(n=Count(what, distinct=True)))


def _student(person: Person, group_id: int, today: date) -> Member | None:
    """The person as a student of the class; None for staff."""
    enrolment = Enrolment.objects.filter(person=person, group_id=group_id).first()
    if enrolment is None:
        return None
    return next(iter(members(group_id, today, enrolments=(enrolment.pk,))), None)


def _groups(student: Member) -> set[int]:
    """The working groups (ids) of a student: one query."""
    inside = GroupMember.objects.filter(enrolment=student.enrolment_id)
    return set(inside.values_list("workinggroup", flat=True))


def _mine(student: Member, items: list[CupboardItem]) -> dict[int, list[dict[str, Any]]]:
    """Where a student's own copies lie, by item: one query."""
    found: dict[int, list[dict[str, Any]]] = defaultdict(list)
    rows = CupboardCopy.objects.filter(portfolio__enrolment=student.enrolment_id, item__in=items, newer=None)
    for one in rows.select_related("pocket", "evidence"):
        if copies.lies_there(one):
            pocket = {"id": one.pocket_id, "title": one.pocket.title}
            found[one.item_id].append({"id": one.pk, "portfolio": one.portfolio_id, "pocket": pocket})
    return found


def item_data(item: CupboardItem, today: date) -> dict[str, Any]:
    """An item as a line."""
    stored = item.stored
    to = shown(item)
    return {
        "id": item.pk,
        "kind": item.kind,
        "title": item.title,
        "heading": item.heading,
        "link": item.link,
        "file_kind": item.file_kind,
        "media_type": stored.media_type if stored else "",
        "size": stored.size if stored else 0,
        "staff_only": item.staff_only,
        "opens": item.opens,
        "waits": to.opens is not None and to.opens > today,
        "periods": item.periods,
        "groups": item.groups,
        "lent_from": item.lent_from.group.name if item.lent_from else "",
        "version": item.version,
        "changed_at": item.changed_at,
        "copies": 0,
        "read": 0,
        "mine": [],
    }


def shown_item(person: Person, item_id: int, now: datetime) -> CupboardItem:
    """An item that this person is shown; for everybody else there is none."""
    found = CupboardItem.objects.filter(pk=item_id).select_related("stored", "lent_from__group").first()
    if found is None:
        raise no_item()
    require_in_group(person, Action.SEE_CUPBOARD, found.group_id)
    today = school_calendar().local_day(now)
    student = _student(person, found.group_id, today)
    if found.removed_at is not None:
        raise no_item()
    if student is not None and not shown(found).to_student(today, student.period_id, _groups(student)):
        raise no_item()
    return found


def opened(person: Person, item_id: int, now: datetime) -> dict[str, Any]:
    """An item with what is in it."""
    item = shown_item(person, item_id, now)
    today = school_calendar().local_day(now)
    kind = laying.kind_of(item)
    pockets = pockets_of(item.group_id).filter(retired_at=None).select_related("section")
    keeps = decide(Action.KEEP_CUPBOARD, to_group(person, item.group_id)).allowed
    mine = lending.lendable(person, item) if keeps and item.lent_from is None else []
    return {
        **item_data(item, today),
        "lendable": [{"id": one.pk, "title": one.name} for one in mine],
        "lent_to": lending.lent_to(item) if keeps else [],
        "html": item.html,
        "group": item.group_id,
        "pockets": [
            {
                "id": one.pk,
                "title": one.title,
                "section": one.section.title,
                "why_not": why_not(kind, laying.target_of(one)),
            }
            for one in pockets.order_by("section__position", "section_id", "position", "pk")
        ],
    }


def mark_read(person: Person, item_id: int, now: datetime) -> None:
    """A student has opened an item; of staff nothing is kept. Again changes nothing."""
    item = shown_item(person, item_id, now)
    enrolment = Enrolment.objects.filter(person=person, group_id=item.group_id).first()
    if enrolment is not None:
        with deed(person.pk, now):
            CupboardReading.objects.get_or_create(item=item, enrolment=enrolment, defaults={"at": now})


def copies_of_item(person: Person, item_id: int, now: datetime) -> list[dict[str, Any]]:
    """Who has a copy, when and into which pocket, and how far each has come: by name."""
    found = CupboardItem.objects.filter(pk=item_id).first()
    if found is None:
        raise no_item()
    require_in_group(person, Action.SEE_COPIES, found.group_id)
    return lines_of(found.group_id, copies.loaded(CupboardCopy.objects.filter(item=found)), now)


def lines_of(group_id: int, of: list[CupboardCopy], now: datetime) -> list[dict[str, Any]]:
    """Copies of a class as lines, by name."""
    faces = {one.enrolment_id: face(one) for one in members(group_id, school_calendar().local_day(now))}
    place = {one: at for at, one in enumerate(faces)}
    lines = [
        {
            "id": one.pk,
            "student": faces[one.portfolio.enrolment_id],
            "title": one.item.title,
            "portfolio": one.portfolio_id,
            "pocket": {"id": one.pocket_id, "title": one.pocket.title},
            "at": one.at,
            "given": one.given_id,
            "newer": one.newer_id is not None,
            "progress": far.value,
        }
        for one, far in zip(of, copies.progress_of(of), strict=True)
        if one.portfolio.enrolment_id in faces
    ]
    return sorted(lines, key=lambda one: (place[one["student"]["id"]], one["id"]))
