"""Pockets and log columns on their way into the cupboard, and out of it into a template.

Decided here: what goes in is the pocket as it is saved, with the files beside it, for staff only until it is shown. Put
in once more it takes the place of what is there of it, and copies follow as they do of a page. What comes out is a part
of the draft: the files wait until that is saved, and nobody sees anything before.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.db import transaction

from coatpeg.core.cupboard.items import LAYOUTS, ItemKind
from coatpeg.core.cupboard.layouts import columns_only, for_the_cupboard, words_in
from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.settings import plan_to_data
from coatpeg.core.policy import Action
from coatpeg.cupboard import keeping
from coatpeg.cupboard.models import CupboardItem
from coatpeg.outlines import editing, given_files
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person


def put_in(person: Person, group_id: int, pocket_id: int, now: datetime, *, columns: bool) -> tuple[CupboardItem, bool]:
    """Put a pocket of the template, or only a log's columns, into the class's cupboard; and whether it is new there."""
    require_in_group(person, Action.KEEP_CUPBOARD, group_id)
    template = editing.template_of(group_id)
    pocket = editing.pocket_of(template, pocket_id)
    plan = editing.plan_of(pocket)
    kept = columns_only(plan) if columns else for_the_cupboard(plan)
    files = [] if columns else given_files.as_document(template).get(pocket.key, [])
    layout = {**plan_to_data(kept), "files": files}
    kind = ItemKind.LOG if columns else ItemKind.POCKET
    return keeping.put_layout_in(person, group_id, kind, plan.title, words_in(kept), (pocket.key, layout), now)


def fetch(person: Person, group_id: int, item_id: int, now: datetime) -> dict[str, Any]:
    """A pocket as it lies in the cupboard, for the draft of a template; its files wait there."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    item = keeping.kept_item(person, item_id)
    if item.group_id != group_id:
        raise Gone("This thing lies in the cupboard of another class.", fix="Lend it to this class first.")
    if item.kind not in LAYOUTS:
        raise Invalid(
            f"“{item.title}” is no pocket and no log.", where="item", fix="Lay it with the directions of a pocket."
        )
    settings = dict(item.layout)
    lines = settings.pop("files", [])
    with transaction.atomic():
        files = given_files.wait_for(editing.locked_template(group_id), lines, now)
    return {"settings": {**settings, "title": item.title}, "files": [given_files.file_data(one) for one in files]}
