"""Where a rubric can come from, for whoever sets a hand-in.

Decided here: those of other hand-ins are of the classes in which one sets hand-ins, the newest first, the same rubric
once; what is taken is a copy, and nothing hangs together later.
"""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from coatpeg.core.marking.rubric_gallery import GALLERY
from coatpeg.core.marking.rubric_table import cells_in, rubric_in
from coatpeg.core.marking.rubrics import rubric_to_data
from coatpeg.core.policy import Action, decide
from coatpeg.handins.models import HandIn
from coatpeg.people.access import require_in_group, to_group
from coatpeg.people.models import Person, StaffRole

MOST = 60
LONGEST = 200_000
"""Characters of a table."""


def read(person: Person, group_id: int, text: str) -> dict[str, Any]:
    """The rubric that a pasted table or a CSV file holds."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    return rubric_to_data(rubric_in(cells_in(text), lambda: uuid4().hex[:12]))


def found(person: Person, group_id: int) -> list[dict[str, Any]]:
    """Rubrics to begin from: of one's hand-ins, then of the gallery."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    mine = StaffRole.objects.filter(person=person).values("group")
    rows = HandIn.objects.filter(taken_away_at=None, group__in=mine).exclude(rubric={})
    may: dict[int, bool] = {}
    seen: set[str] = set()
    lines: list[dict[str, Any]] = []
    for one in rows.select_related("group").order_by("-pk")[: 4 * MOST]:
        allowed = may.setdefault(one.group_id, decide(Action.SET_HANDIN, to_group(person, one.group_id)).allowed)
        key = str(one.rubric)
        if allowed and key not in seen and len(lines) < MOST:
            seen.add(key)
            lines.append({"title": one.title, "of": one.group.name, "rubric": one.rubric})
    shipped = [{"title": title, "of": "", "rubric": rubric_to_data(rubric)} for title, rubric in GALLERY]
    return [*lines, *shipped]
