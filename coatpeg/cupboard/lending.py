"""Items that are lent to other classes, and a cupboard that goes along into another class.

An item that is lent lies in the other class's cupboard as a row of its own: who is shown it there, and from when, is
that class's to say; what is in it is that of the class it comes from, and follows every change. Decided here: whoever
keeps both cupboards lends; what is lent is lent on from where it comes only, so that no ring comes about; what is
restricted to periods or groups is for staff only in another class, until it is shown there. An item that is taken out
takes what is lent of it along, and brings it back. What goes along into another class (next year's) is a copy that
belongs there: its days lie in the same school week; what lies there already is left out.
"""

from __future__ import annotations

from collections.abc import Callable, Collection
from datetime import date, datetime

from coatpeg.core.cupboard.items import MOST_ITEMS
from coatpeg.core.errors import Invalid
from coatpeg.core.policy import Action, decide
from coatpeg.cupboard import following, keeping, renewing
from coatpeg.cupboard.models import CupboardItem
from coatpeg.events.recording import Deed, deed
from coatpeg.people.access import require_in_group, to_group
from coatpeg.people.models import Person, StaffRole, TeachingGroup


def lend(person: Person, item_id: int, classes: Collection[int], now: datetime) -> CupboardItem:
    """Lend an item to just these classes of those whose cupboard this person keeps; the others stay as they are."""
    kept = keeping.kept_item(person, item_id)
    if kept.lent_from is not None:
        raise Invalid(
            f"“{kept.title}” is lent from “{kept.lent_from.group.name}”.",
            where="classes",
            fix="Lend it there: it belongs to that class.",
        )
    if kept.group_id in classes:
        raise Invalid(
            f"“{kept.title}” lies in “{kept.group.name}” already: it is its own.",
            where="classes",
            fix="Choose other classes.",
        )
    for one in classes:
        require_in_group(person, Action.KEEP_CUPBOARD, one)
    mine = {one.pk for one in lendable(person, kept)}
    with deed(person.pk, now) as doing:
        item = CupboardItem.objects.select_for_update().get(pk=item_id)
        there = {one.group_id: one for one in CupboardItem.objects.filter(lent_from=item).order_by("pk")}
        for pk in sorted(mine):
            lent = there.get(pk)
            if pk in classes and (lent is None or lent.removed_at is not None):
                keeping.refuse_full(pk)
                _lay(doing, person, item, pk, lent)
            elif pk not in classes and lent is not None and lent.removed_at is None:
                _take_out(doing, lent)
        return item


def lendable(person: Person, item: CupboardItem) -> list[TeachingGroup]:
    """The other running classes whose cupboard somebody keeps, by name."""
    staffed = StaffRole.objects.filter(person=person).exclude(group=item.group_id).values("group")
    others = TeachingGroup.objects.filter(pk__in=staffed, put_away_at=None).exclude(kind=TeachingGroup.Kind.CASELOAD)
    keeps = (
        one for one in others.order_by("name", "pk") if decide(Action.KEEP_CUPBOARD, to_group(person, one.pk)).allowed
    )
    return list(keeps)


def lent_to(item: CupboardItem) -> list[int]:
    """The classes (ids) in which an item is lent now."""
    return list(item.lent.filter(removed_at=None).order_by("group").values_list("group", flat=True))


def _lay(doing: Deed, person: Person, item: CupboardItem, group_id: int, there: CupboardItem | None) -> None:
    one = there or CupboardItem(group_id=group_id, kind=item.kind, heading=item.heading, made_by=person)
    if there is None:
        group = TeachingGroup.objects.get(pk=group_id)
        in_class = item.opens is not None and group.first <= item.opens <= group.last
        one.lent_from, one.made_at = item, doing.now
        one.opens = item.opens if in_class else None
        one.staff_only = item.staff_only or bool(item.periods or item.groups) or (bool(item.opens) and not in_class)
    changed = following.take(one, item)
    one.removed_at, one.changed_at = None, doing.now
    one.version += 1
    one.content += int(changed and there is not None)
    one.save()
    if changed and there is not None:
        renewing.renew(doing, one)
    doing.record("cupboard_item_lent", group_id, item=one.pk, source=item.pk)


def _take_out(doing: Deed, one: CupboardItem) -> None:
    one.removed_at = doing.now
    one.save(update_fields=["removed_at"])
    doing.record("cupboard_item_removed", one.group_id, item=one.pk)


def bring_along(
    doing: Deed, person: Person, source_id: int, group_id: int, moved: Callable[[date | None], date | None]
) -> list[int]:
    """Copy what lies in one class's cupboard into another's; returns what was made (ids)."""
    group = TeachingGroup.objects.select_for_update().get(pk=group_id)
    here = {_same(one) for one in CupboardItem.objects.filter(group_id=group_id, removed_at=None)}
    made = []
    for item in CupboardItem.objects.filter(group_id=source_id, removed_at=None).order_by("pk"):
        if _same(item) in here or len(here) >= MOST_ITEMS:
            continue
        here.add(_same(item))
        opens = moved(item.opens)
        outside = opens is not None and not group.first <= opens <= group.last
        one = CupboardItem(group=group, kind=item.kind, heading=item.heading, made_by=person, made_at=doing.now)
        following.take(one, item)
        one.opens = None if outside else opens
        one.staff_only = item.staff_only or outside or bool(item.periods or item.groups)
        one.changed_at = doing.now
        one.save()
        made.append(one.pk)
    if made:
        doing.record("cupboard_brought_along", group_id, source=source_id, items=made)
    return made


def _same(item: CupboardItem) -> tuple[object, ...]:
    return (item.kind, *(str(getattr(item, name)) for name in following.CONTENT))


def take_back(doing: Deed, group_id: int, items: Collection[int]) -> None:
    """Take out what came along and is as it came."""
    for one in CupboardItem.objects.filter(version=1, pk__in=items, group_id=group_id, removed_at=None):
        _take_out(doing, one)
