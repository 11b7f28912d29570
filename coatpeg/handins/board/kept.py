"""Boards as they were read last, kept by the process: who opens one that stands is answered without reading it anew.

The same three things that name a board (``tags``) decide whether it stands: the newest event of its class, the moment
at which it changes by itself, midnight. Where some students' cells have changed since, only these are read, as for a
page that follows the class (``changed``), and put in their places; where more has, the board is read anew. A process
that has none begins from what a worker has laid ready (``laid``). Nothing is kept of who asked: the two boards of a
class differ in whether something agreed with learning support is told.

Decided here: ``changes_at`` of a board with changed rows is the earlier of its own and theirs; it may be a moment at
which nothing happens any more, and is then looked at in vain. Of the boards that were not asked for longest, as many
are let go as are beyond ``MOST_BYTES``.
"""

from __future__ import annotations

from collections import Counter, OrderedDict
from collections.abc import Iterable
from datetime import datetime
from threading import Lock
from typing import Any

import orjson

from coatpeg.core.policy import Action, decide
from coatpeg.events.changes import Changes, changes_after
from coatpeg.handins.board import changed, laid, pegs
from coatpeg.handins.board.laid import Standing
from coatpeg.handins.board.tags import tag_of
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person

MOST_BYTES = 20_000_000
"""Of all boards that a process keeps."""

Board = dict[str, Any]

_kept: OrderedDict[tuple[int, bool], Standing] = OrderedDict()
_keeping = Lock()


def forget() -> None:
    """Let go of every board: the database is another one."""
    with _keeping:
        _kept.clear()


def board(person: Person, group_id: int, now: datetime) -> tuple[bytes, str]:
    """The board of a class as JSON, and its name: three statements while it stands."""
    agreed = decide(Action.SEE_ADJUSTMENTS, require_in_group(person, Action.SEE_BOARD, group_id)).allowed
    with _keeping:
        found = _kept.get((group_id, agreed))
    if found is None or not found.stands(now):
        found = laid.find(group_id, now, agreed=agreed)
    # The cursor is read before what is named by it: what happens meanwhile is read again.
    what = changes_after(group_id, found.cursor if found else None)
    if found is None or what.cursor != found.cursor:
        found = _as_of(what, found, group_id, now, agreed=agreed)
        _keep((group_id, agreed), found)
    return found.sent, tag_of(group_id, found.cursor, found.until)


def _as_of(what: Changes, found: Standing | None, group_id: int, now: datetime, *, agreed: bool) -> Standing:
    touched = changed.moved_in(what) if found else None
    if found is None or touched is None:
        return laid.read(group_id, what.cursor, now, agreed=agreed)
    rows, changes_at = changed.rows_of(group_id, touched, now, agreed=agreed)
    board = with_rows(orjson.loads(found.sent), _as_sent(rows), changes_at)
    until = min(found.until, changes_at or found.until)
    return Standing(what.cursor, now, until, orjson.dumps(board, option=orjson.OPT_UTC_Z))


def _as_sent(rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Rows with days and moments as a board that is sent has them: its cells are told apart by what they say."""
    found: list[dict[str, Any]] = orjson.loads(orjson.dumps(rows, option=orjson.OPT_UTC_Z))
    return found


def _keep(key: tuple[int, bool], found: Standing) -> None:
    with _keeping:
        before = _kept.get(key)
        if before is None or before.cursor <= found.cursor:
            _kept[key] = found
        _kept.move_to_end(key)
        while len(_kept) > 1 and sum(len(one.sent) for one in _kept.values()) > MOST_BYTES:
            _kept.popitem(last=False)


def with_rows(board: Board, rows: Iterable[dict[str, Any]], changes_at: datetime | None) -> Board:
    """A board that was sent with changed rows in their places, its columns counted anew where they moved."""
    states, students, handins = list(board["states"]), list(board["students"]), list(board["handins"])
    places = {tuple(state.values()): at for at, state in enumerate(states)}
    columns = {str(one["id"]): at for at, one in enumerate(handins)}
    where = {one["id"]: at for at, one in enumerate(students)}
    moved: set[int] = set()
    for row in rows:
        if row["id"] not in where:
            continue  # who comes and goes has the board read anew
        was = students[where[row["id"]]]
        cells = list(was["cells"])
        for handin, cell in row["cells"].items():
            place = places.setdefault(tuple(cell.values()), len(states))
            if place == len(states):
                states.append(cell)
            cells[columns[handin]] = place
            moved.add(columns[handin])
        students[where[row["id"]]] = {**was, **row, "cells": cells}
    for at in moved:
        own = [states[one["cells"][at]] for one in students]
        counts = Counter(one["status"] for one in own)
        handins[at] = handins[at] | pegs.counted(counts, sum(one["overdue"] for one in own))
    before = board["changes_at"] and datetime.fromisoformat(board["changes_at"])
    moments = [one for one in (before, changes_at) if one]
    return {
        **board,
        "states": states,
        "students": students,
        "handins": handins,
        "changes_at": min(moments, default=None),
    }
