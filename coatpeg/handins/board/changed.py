"""What changed in a class, for whoever follows it; and the board's cells that it changed.

``events`` says what was touched, this says what the board shows of it now. Decided here: a change of one student sends
that student's cells of the hand-ins that it can have moved (the one it names, those that collect the pocket it names,
else all); a change of the class as a whole, or of very many students, has the board loaded anew.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from datetime import datetime
from typing import Any

from coatpeg.core.policy import Action, decide
from coatpeg.events.changes import Changes, Touch, changes_after
from coatpeg.events.kinds import Kind
from coatpeg.handins.board.pegs import cell, row_state
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.people.access import follower, require
from coatpeg.people.models import Person

MOST_ROWS = 40
"""Students whose rows are sent one by one: beyond it the board as a whole is the shorter answer."""
MOVES_CELLS = frozenset({Kind.WORK, Kind.HANDING, Kind.OWN_DUES, Kind.ADJUSTMENTS})
"""Kinds that change cells and the row's figures of the students they name, and nothing else of the board."""
LEAVES_BOARD = frozenset({Kind.MARKS, Kind.COMMENTS, Kind.REMINDERS, Kind.SHOW, Kind.GALLERY, Kind.LISTS, Kind.STAFF})


def changes(person: Person, group_id: int, after: int | None, now: datetime, *, board: bool) -> dict[str, Any]:
    """What was touched after a cursor; with ``board`` also the board's changed cells, for staff.

    Two queries where nothing is new.
    """
    standings, enrolment_id = follower(person, group_id)
    require(Action.FOLLOW_CHANGES, standings)
    found = changes_after(group_id, after, only_enrolment=enrolment_id)
    touched = moved_in(found)
    agreed = decide(Action.SEE_ADJUSTMENTS, standings).allowed
    rows: list[dict[str, Any]] = []
    changes_at = None
    if board and enrolment_id is None and touched:
        rows, changes_at = rows_of(group_id, touched, now, agreed=agreed)
    return {
        "cursor": found.cursor,
        "all_changed": found.all_changed,
        "kinds": sorted({one.kind.value for one in found.touches}),
        "enrolments": sorted({one.enrolment_id for one in found.touches if one.enrolment_id is not None}),
        "handins": sorted({one.handin_id for one in found.touches if one.handin_id is not None}),
        "everybody": any(one.enrolment_id is None for one in found.touches),
        "board_anew": touched is None,
        "rows": rows,
        "changes_at": changes_at,
    }


def moved_in(found: Changes) -> dict[int, list[Touch]] | None:
    """What changed of which students' cells, by enrolment; None where the board is loaded anew."""
    if found.all_changed or any(_turns_over(one) for one in found.touches):
        return None
    touched: dict[int, list[Touch]] = defaultdict(list)
    for one in found.touches:
        if one.enrolment_id is not None and one.kind in MOVES_CELLS:
            touched[one.enrolment_id].append(one)
    return touched if len(touched) <= MOST_ROWS else None


def _turns_over(touch: Touch) -> bool:
    """Whether a change has the board loaded anew."""
    return touch.kind not in MOVES_CELLS | LEAVES_BOARD or (touch.kind in MOVES_CELLS and touch.enrolment_id is None)


def rows_of(
    group_id: int, touched: dict[int, list[Touch]], now: datetime, *, agreed: bool
) -> tuple[list[dict[str, Any]], datetime | None]:
    """What these students' rows say now, with the cells that moved, by hand-in; and the next moment that moves one."""
    if not touched:
        return [], None
    view = situation(group_id, now, enrolments=touched.keys())
    rows = []
    for member in view.members:
        moved = _moved(view, touched[member.enrolment_id])
        cells = {str(one.id): cell(view, member.enrolment_id, one) for one in view.handins if one.id in moved}
        rows.append({"id": member.enrolment_id, **row_state(view, member, agreed=agreed), "cells": cells})
    moments = (one.changes_at for one in view.standings.values() if one.changes_at)
    return rows, min(moments, default=None)


def _moved(view: Situation, touches: Iterable[Touch]) -> set[int]:
    """The hand-ins whose cells these changes of one student can have moved."""
    found: set[int] = set()
    for one in touches:
        if one.handin_id is not None:
            found.add(one.handin_id)
        elif one.pocket_id is not None:
            found |= {handin.id for handin in view.handins if one.pocket_id in handin.pockets}
        elif one.kind is not Kind.WORK:  # work without a pocket is a cover or a loose page: no hand-in collects it
            found |= {handin.id for handin in view.handins}
    return found
