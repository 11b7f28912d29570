"""Boards as they were read last, kept by the process: who opens one that stands is answered without reading it anew.

The same three things that name a board (``tags``) decide whether it stands: the newest event of its class, the moment
at which it changes by itself, midnight. Where some students' cells have changed since, only these are read, as for a
page that follows the class (``changed``), and put in their places; where more has, the board is read anew. Nothing is
kept of who asked: the two boards of a class differ in whether something agreed with learning support is told.

Decided here: ``changes_at`` of a board with changed rows is the earlier of its own and theirs; it may be a moment at
which nothing happens any more, and is then looked at in vain. Of the boards that were not asked for longest, as many
are let go as are beyond ``MOST_CELLS``.
"""

from __future__ import annotations

from collections import Counter, OrderedDict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from threading import Lock
from typing import Any

import orjson

from coatpeg.core.policy import Action, decide
from coatpeg.events.changes import Changes, changes_after
from coatpeg.handins.board import changed, pegs
from coatpeg.handins.board.tags import tag_of
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person

MOST_CELLS = 500_000
"""Of all boards that a process keeps: some 20 MB."""
_NAMES = 16
"""What a student's name, period and days take of it, in cells."""

Board = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Kept:
    """A board: the number of the newest event when it was read, from and until when it stands, and as it is sent."""

    cursor: int
    since: datetime
    until: datetime
    board: Board
    sent: bytes

    @property
    def size(self) -> int:
        """How much of ``MOST_CELLS`` it takes."""
        return len(self.board["students"]) * (len(self.board["handins"]) + _NAMES)


_kept: OrderedDict[tuple[int, bool], Kept] = OrderedDict()
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
    if found is not None and not found.since <= now < found.until:
        found = None
    # The cursor is read before what is named by it: what happens meanwhile is read again.
    what = changes_after(group_id, found.cursor if found else None)
    if found is None or what.cursor != found.cursor:
        found = _as_of(what, found, group_id, now, agreed=agreed)
        _keep((group_id, agreed), found)
    return found.sent, tag_of(group_id, found.cursor, found.until)


def _as_of(what: Changes, found: Kept | None, group_id: int, now: datetime, *, agreed: bool) -> Kept:
    touched = changed.moved_in(what) if found else None
    if found is None or touched is None:
        read, until = pegs.board(group_id, now, agreed=agreed)
    else:
        rows, changes_at = changed.rows_of(group_id, touched, now, agreed=agreed)
        read = with_rows(found.board, rows, changes_at)
        until = min(found.until, changes_at or found.until)
    return Kept(what.cursor, now, until, read, orjson.dumps(read, option=orjson.OPT_UTC_Z))


def _keep(key: tuple[int, bool], found: Kept) -> None:
    with _keeping:
        before = _kept.get(key)
        if before is None or before.cursor <= found.cursor:
            _kept[key] = found
        _kept.move_to_end(key)
        while len(_kept) > 1 and sum(one.size for one in _kept.values()) > MOST_CELLS:
            _kept.popitem(last=False)


def with_rows(board: Board, rows: Iterable[dict[str, Any]], changes_at: datetime | None) -> Board:
    """A board with changed rows (``changed.rows_of``) in their places, its columns counted anew where they moved."""
    states, students, handins = list(board["states"]), list(board["students"]), list(board["handins"])
    places = {tuple(state.values()): at for at, state in enumerate(states)}
    columns = {str(one["id"]): at for at, one in enumerate(handins)}
    where = {one["id"]: at for at, one in enumerate(students)}
    moved: set[int] = set()
    for row in rows:
        if row["id"] not in where:
            continue  # who comes and goes has the board read anew
        before = students[where[row["id"]]]
        cells = list(before["cells"])
        for handin, cell in row["cells"].items():
            place = places.setdefault(tuple(cell.values()), len(states))
            if place == len(states):
                states.append(cell)
            cells[columns[handin]] = place
            moved.add(columns[handin])
        students[where[row["id"]]] = {**before, **row, "cells": tuple(cells)}
    for at in moved:
        own = [states[one["cells"][at]] for one in students]
        counts = Counter(one["status"] for one in own)
        handins[at] = handins[at] | pegs.counted(counts, sum(one["overdue"] for one in own))
    moments = [one for one in (board["changes_at"], changes_at) if one]
    return {
        **board,
        "states": states,
        "students": students,
        "handins": handins,
        "changes_at": min(moments, default=None),
    }
