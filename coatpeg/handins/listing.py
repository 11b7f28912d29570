"""The list of hand-ins for staff, with what a new one can be made of."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.policy import Action, decide
from coatpeg.handins.board import frame
from coatpeg.handins.situation import situation
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Period, Person


def handins(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The rail's frame, the pockets and periods to choose from, and whether this person sets hand-ins."""
    standings = require_in_group(person, Action.SEE_HANDINS, group_id)
    view = situation(group_id, now)
    return {
        **frame(view),
        "pockets": [
            {"id": pocket.id, "title": pocket.title, "section": pocket.section}
            for pocket in view.outline
            if not pocket.retired
        ],
        "all_periods": list(Period.objects.filter(group_id=group_id).values("id", "name")),
        "may_set": decide(Action.SET_HANDIN, standings).allowed,
    }
