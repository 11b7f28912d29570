"""What is lent follows the item that it is lent from: its content, and whether it is there."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime

from coatpeg.cupboard import renewing
from coatpeg.cupboard.models import CupboardItem
from coatpeg.events.recording import Deed

CONTENT = ("title", "html", "link", "layout", "pocket_key", "stored_id", "came_sha256", "file_kind")
"""What an item that is lent has from where it comes."""


def take(one: CupboardItem, item: CupboardItem) -> bool:
    """Have what an item has; whether what copies are compared by is another now."""
    other = [name for name in CONTENT if getattr(one, name) != getattr(item, name)]
    for name in other:
        setattr(one, name, getattr(item, name))
    return bool({"html", "link", "stored_id"} & set(other))


def follow(doing: Deed, item: CupboardItem) -> None:
    """What is lent of an item follows its change; its copies are renewed there too."""
    for one in item.lent.select_for_update().filter(removed_at=None).order_by("pk"):
        content = take(one, item)
        one.version, one.changed_at = one.version + 1, doing.now
        one.content += int(content)
        one.save()
        if content:
            renewing.renew(doing, one)
        doing.record("cupboard_item_changed", one.group_id, item=one.pk)


def follow_out(doing: Deed, item: CupboardItem, before: datetime | None, refuse_full: Callable[[int], None]) -> None:
    """What is lent of an item goes and comes back with it; ``before`` is when it was taken out, where it comes back;
    ``refuse_full`` refuses a class (its id) whose cupboard holds no more.
    """
    out = item.removed_at is not None
    for one in item.lent.select_for_update().filter(removed_at=None if out else before).order_by("pk"):
        if not out:
            refuse_full(one.group_id)
        one.removed_at = item.removed_at
        one.save(update_fields=["removed_at"])
        doing.record("cupboard_item_removed" if out else "cupboard_item_restored", one.group_id, item=one.pk)
