"""The name of a board as it stands (RFC 9110, entity tag), so that one that is still right is not sent again.

What a board shows changes by an event of its class, at midnight, or at the moment that it says itself
(``changes_at``): its name is made of these three, and of nothing that has to be worked out.
"""

from __future__ import annotations

import re
from datetime import datetime

from coatpeg.core.policy import Action
from coatpeg.events.changes import changes_after
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person

_NAME = re.compile(r'"(\d+)-(\d+)-(\d{1,11})"')


def cursor_of(group_id: int) -> int:
    """The number of the newest event of a class; read before what is named by it."""
    return changes_after(group_id, None).cursor


def tag_of(group_id: int, cursor: int, until: datetime) -> str:
    """The name of a board that was read after this event and changes by itself at ``until``."""
    return f'"{group_id}-{cursor}-{int(until.timestamp())}"'


def still_stands(person: Person, group_id: int, tag: str, now: datetime) -> bool:
    """Whether the board of this name is what would be answered now: two statements, however large the class."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    named = _NAME.fullmatch(tag.removeprefix("W/"))
    if named is None or int(named[1]) != group_id or int(named[3]) <= now.timestamp():
        return False
    return int(named[2]) == cursor_of(group_id)
