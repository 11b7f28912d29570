"""Staff put items into the cupboard, change them, take them away and fetch them back.

Decided here: whoever may change the template keeps the cupboard. A change names the version it saw. What was taken away
stays with its copies and is fetched back as it was; its copies are the students' and stay. What is lent from another
class is changed there; who is shown it here is said here. A newer file takes the place
of the one before. How a changed item reaches its copies stands in ``renewing``.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from django.core.files.base import File

from coatpeg.core.cupboard.items import LAYOUTS, LONGEST_HEADING, LONGEST_TITLE, MOST_ITEMS, ItemKind
from coatpeg.core.errors import Gone, Invalid, Stale
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import incoming
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.cupboard import following, renewing
from coatpeg.cupboard.models import CupboardItem
from coatpeg.events.recording import Deed, deed
from coatpeg.files import keeping, previews
from coatpeg.outlines.rich_text import clean_starter
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import check_class_days
from coatpeg.people.models import Period, Person, TeachingGroup, WorkingGroup
from coatpeg.portfolios.rich_pages import LONGEST_HTML


@dataclass(frozen=True, slots=True)
class ItemPlan:
    """What somebody says of an item: its words, and to whom it is shown. ``html`` is a page's, ``link`` a link's."""

    title: str
    heading: str = ""
    html: str = ""
    link: str = ""
    staff_only: bool = False
    opens: date | None = None
    periods: Collection[int] = ()
    groups: Collection[int] = ()


def put_in(person: Person, group_id: int, kind: ItemKind, plan: ItemPlan, now: datetime) -> CupboardItem:
    """Put a page or a link in."""
    require_in_group(person, Action.KEEP_CUPBOARD, group_id)
    checked = _checked(group_id, kind, plan)
    with deed(person.pk, now) as doing:
        refuse_full(group_id)
        return _make(doing, person, group_id, kind=kind.value, **checked)


def put_file_in(
    person: Person, group_id: int, content: File[Any], name: str, now: datetime, *, heading: str = ""
) -> CupboardItem:
    """Put a file in: for staff only until it is shown. The bytes are safe before anything is written."""
    require_in_group(person, Action.KEEP_CUPBOARD, group_id)
    title, _ = incoming.tidy_title(name)
    heading = _heading(heading)
    kept = keeping.keep(content, title)
    with deed(person.pk, now) as doing:
        refuse_full(group_id)
        return _make(doing, person, group_id, kind="file", title=title, heading=heading, staff_only=True, **_of(kept))


def put_layout_in(
    person: Person,
    group_id: int,
    kind: ItemKind,
    title: str,
    html: str,
    of: tuple[str, dict[str, Any]],
    now: datetime,
) -> tuple[CupboardItem, bool]:
    """Put a pocket or a log's columns in, for staff only until it is shown; ``of`` is its pocket's key, and the layout.

    What lies there of the same pocket is exchanged: who sees it, and what it stands under, stays. Returns whether there
    was none.
    """
    require_in_group(person, Action.KEEP_CUPBOARD, group_id)
    key, layout = of
    words: dict[str, Any] = {"html": clean_starter(tidy_text(html)), "layout": layout}
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().filter(pk=group_id).values_list("pk").first()
        rows = CupboardItem.objects.filter(group_id=group_id, kind=kind, pocket_key=key, removed_at=None)
        item = rows.filter(lent_from=None).select_for_update().first()
        if item is None:
            refuse_full(group_id)
            shown: dict[str, Any] = {"title": title[:LONGEST_TITLE], "staff_only": True}
            return _make(doing, person, group_id, kind=kind.value, pocket_key=key, **shown, **words), True
        content = item.html != words["html"]
        if content or item.layout != layout:
            item.html, item.layout = words["html"], layout
            _changed(doing, item, content=content)
            doing.record("cupboard_item_changed", group_id, item=item.pk)
        return item, False


def change(person: Person, item_id: int, version: int, plan: ItemPlan, now: datetime) -> CupboardItem:
    """Change an item; copies of what was in it are renewed where that changed."""
    kept = kept_item(person, item_id)
    with deed(person.pk, now) as doing:
        item = _locked(kept, version)
        checked = _checked(item.group_id, ItemKind(item.kind), plan)
        if item.kind in LAYOUTS:
            checked["html"] = item.html
        _refuse_lent(item, any(checked[name] != getattr(item, name) for name in ("title", "html", "link")))
        told = {**checked, "opens": checked["opens"] and checked["opens"].isoformat()}
        content = (checked["html"], checked["link"]) != (item.html, item.link)
        for name, value in checked.items():
            setattr(item, name, value)
        _changed(doing, item, content=content)
        doing.record("cupboard_item_changed", item.group_id, item=item.pk, staff_only=told["staff_only"])
        return item


def change_file(
    person: Person, item_id: int, version: int, content: File[Any], name: str, now: datetime
) -> CupboardItem:
    """Put a newer file in the place of an item's file."""
    kept = kept_item(person, item_id)
    if kept.kind != ItemKind.FILE:
        raise Invalid(f"“{kept.title}” is no file.", where="file", fix="Put the file in as an item of its own.")
    stored = keeping.keep(content, incoming.tidy_title(name)[0])
    with deed(person.pk, now) as doing:
        item = _locked(kept, version)
        _refuse_lent(item, other=True)
        same = item.stored_id == stored.stored.pk
        for field, value in _of(stored).items():
            setattr(item, field, value)
        _ask(item, now)
        _changed(doing, item, content=not same)
        doing.record("cupboard_item_changed", item.group_id, item=item.pk, kept=stored.stored.sha256)
        return item


def set_removed(person: Person, item_id: int, now: datetime, *, removed: bool) -> CupboardItem:
    """Take an item away, or fetch it back."""
    kept = kept_item(person, item_id, also_removed=True)
    with deed(person.pk, now) as doing:
        item = CupboardItem.objects.select_for_update().get(pk=kept.pk)
        if (item.removed_at is not None) != removed:
            if not removed:
                refuse_full(item.group_id)
            before, item.removed_at = item.removed_at, now if removed else None
            item.save(update_fields=["removed_at"])
            following.follow_out(doing, item, before, refuse_full)
            verb = "cupboard_item_removed" if removed else "cupboard_item_restored"
            doing.record(verb, item.group_id, item=item.pk)
        return item


def kept_item(person: Person, item_id: int, *, also_removed: bool = False) -> CupboardItem:
    """An item, for somebody who keeps its cupboard; ``Gone`` for whoever may not know of it."""
    found = CupboardItem.objects.filter(pk=item_id).select_related("stored", "group", "lent_from__group").first()
    if found is None:
        raise no_item()
    require_in_group(person, Action.KEEP_CUPBOARD, found.group_id)
    if found.removed_at is not None and not also_removed:
        raise Gone(f"“{found.title}” was taken out of the cupboard.", fix="Fetch it back first, or put it in anew.")
    return found


def no_item() -> Gone:
    """What is said where there is none."""
    return Gone("There is no such thing in the cupboard.", fix="Look through the cupboard again.")


def _locked(kept: CupboardItem, version: int) -> CupboardItem:
    item = CupboardItem.objects.select_for_update().get(pk=kept.pk)
    if item.version != version:
        raise Stale(
            f"“{item.title}” was changed by somebody else meanwhile.",
            where="version",
            fix="Look at it as it is now, then change it. What you wrote stays in the form.",
            more={"version": item.version},
        )
    return item


def _changed(doing: Deed, item: CupboardItem, *, content: bool) -> None:
    item.version += 1
    item.changed_at = doing.now
    if content:
        item.content += 1
    item.save()
    if content:
        renewing.renew(doing, item)
    following.follow(doing, item)


def _make(doing: Deed, person: Person, group_id: int, **of: Any) -> CupboardItem:
    at = doing.now
    item = CupboardItem.objects.create(group_id=group_id, made_by=person, made_at=at, changed_at=at, **of)
    _ask(item, at)
    doing.record("cupboard_item_put_in", group_id, item=item.pk)
    return item


def _ask(item: CupboardItem, now: datetime) -> None:
    """How a document is shown is made in the background."""
    if item.stored is not None and item.file_kind in (ArtefactKind.FILE, ArtefactKind.SCAN):
        previews.ask(item.stored, item.title, now)


def _of(kept: keeping.Kept) -> dict[str, Any]:
    return {"stored": kept.stored, "came_sha256": kept.came_sha256, "file_kind": kept.kind.value}


def _refuse_lent(item: CupboardItem, other: bool) -> None:
    """What is in an item that is lent is changed where it comes from."""
    if other and item.lent_from is not None:
        raise Invalid(
            f"“{item.title}” is lent from “{item.lent_from.group.name}”.",
            where="title",
            fix="Change what is in it there; who sees it here is said here.",
        )


def refuse_full(group_id: int) -> None:
    """The class's row is locked: two who put the last one in wait for each other."""
    TeachingGroup.objects.select_for_update().filter(pk=group_id).values_list("pk").first()
    if CupboardItem.objects.filter(group_id=group_id, removed_at=None).count() >= MOST_ITEMS:
        raise Invalid(f"The cupboard holds {MOST_ITEMS} things, which is the most.", fix="Take old ones out first.")


def _checked(group_id: int, kind: ItemKind, plan: ItemPlan) -> dict[str, Any]:
    """The columns of an item as they are kept; ``Invalid`` says which field cannot be."""
    title = " ".join(plan.title.split())
    if not title or len(title) > LONGEST_TITLE:
        raise Invalid(
            f"The title has {len(title)} characters." if title else "It has no title yet.",
            where="title",
            fix=f"Write 1 to {LONGEST_TITLE} characters.",
        )
    if plan.opens is not None:
        check_class_days(group_id, opens=plan.opens)
    mine = set(Period.objects.filter(group_id=group_id).values_list("pk", flat=True))
    if not set(plan.periods) <= mine:
        raise Invalid("A period is not of this class.", where="periods", fix="Choose from the class's periods.")
    theirs = set(WorkingGroup.objects.filter(group_id=group_id).values_list("pk", flat=True))
    if not set(plan.groups) <= theirs:
        raise Invalid("A group is not of this class.", where="groups", fix="Choose from the class's groups.")
    if len(plan.html) > LONGEST_HTML:
        raise Invalid(
            f"The page has {len(plan.html)} characters with its tables and headings; {LONGEST_HTML} is the most.",
            where="html",
            fix="Shorten it, or put it in as a file.",
        )
    return {
        "title": title,
        "heading": _heading(plan.heading),
        "html": clean_starter(tidy_text(plan.html)) if kind is ItemKind.PAGE else "",
        "link": incoming.check_link(plan.link, even_so=True) if kind is ItemKind.LINK else "",
        "staff_only": plan.staff_only,
        "opens": plan.opens,
        "periods": sorted(set(plan.periods)),
        "groups": sorted(set(plan.groups)),
    }


def _heading(raw: str) -> str:
    heading = " ".join(raw.split())
    if len(heading) > LONGEST_HEADING:
        raise Invalid(
            f"The heading has {len(heading)} characters; {LONGEST_HEADING} is the most.",
            where="heading",
            fix="Shorten it.",
        )
    return heading
