"""Boards that a worker has laid ready: a process that has not read one begins from there, as on the first morning.

A board is the most that is read at once, and it changes by itself at midnight: without this the first of every class
would wait for it, every day and after every start. Laid ready is what a process keeps (``kept``), as a row; whoever
takes it reads what has moved since, as from a board of their own.

Decided here: laid ready are the boards of classes that run and have anybody in them, as those see it who are told what
was agreed with learning support (``for_others`` takes that out again); anew where it does not stand any more, and where
the class has moved and it is older than ``LAG``. Every start of the application begins without any: what a board says
may be another thing in another version.
"""

from __future__ import annotations

import zlib
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime, timedelta

import orjson
from django.db import ProgrammingError
from django.db.models import Q
from django.utils import timezone

from coatpeg.events.changes import changes_after
from coatpeg.events.models import GroupSequence
from coatpeg.events.prepared import Prepared
from coatpeg.handins.board import pegs
from coatpeg.handins.models import LaidBoard
from coatpeg.jobs.kinds import Kind, job
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import TeachingGroup

LAG = timedelta(minutes=10)
_OF = Prepared(lambda pk: LaidBoard.objects.filter(pk=pk).values_list("cursor", "since", "until", "packed"))
QUICK = 1
"""How hard it is packed: a row is read as often as it is written."""


@dataclass(frozen=True, slots=True)
class Standing:
    """A board as JSON: the number of the newest event when it was read, from and until when it stands."""

    cursor: int
    since: datetime
    until: datetime
    sent: bytes

    def stands(self, now: datetime) -> bool:
        """Whether nothing but an event can have changed it."""
        return self.since <= now < self.until


def read(group_id: int, cursor: int, now: datetime, *, agreed: bool) -> Standing:
    """The board as it is now; ``cursor`` was read before."""
    board, until = pegs.board(group_id, now, agreed=agreed)
    return Standing(cursor, now, until, orjson.dumps(board, option=orjson.OPT_UTC_Z))


def find(group_id: int, now: datetime, *, agreed: bool) -> Standing | None:
    """A board that was laid ready and stands; one statement."""
    for cursor, since, until, packed in _OF.run(group_id):
        if since <= now < until:
            sent = zlib.decompress(packed)
            return Standing(cursor, since, until, sent if agreed else for_others(sent))
    return None


def for_others(sent: bytes) -> bytes:
    """The same board for whoever is not told what was agreed with learning support."""
    board = orjson.loads(sent)
    for student in board["students"]:
        student["adjusted"] = False
    return orjson.dumps(board)


def _waiting(now: datetime) -> list[int]:
    """The classes whose board is to be laid ready."""
    today = school_calendar().local_day(now)
    there = Q(enrolments__last=None) | Q(enrolments__last__gte=today)
    running = TeachingGroup.objects.filter(there, put_away_at=None, last__gte=today, enrolments__isnull=False)
    classes = running.values_list("pk", flat=True).distinct()
    laid = {one.group_id: one for one in LaidBoard.objects.defer("packed")}
    newest = dict(GroupSequence.objects.values_list("group_id", "last"))
    return [pk for pk in classes if pk not in laid or _is_old(laid[pk], newest.get(pk, 0), now)]


def _is_old(one: LaidBoard, newest: int, now: datetime) -> bool:
    return not one.since <= now < one.until or (one.cursor != newest and one.since < now - LAG)


def is_due() -> bool:
    """Whether any board is to be laid ready."""
    return bool(_waiting(timezone.now()))


@job(Kind("the pegs of every class, laid ready"))
def lay_boards() -> int:
    """Lay every board ready that is not; returns how many."""
    classes = _waiting(timezone.now())
    for pk in classes:
        lay(pk, timezone.now())
    return len(classes)


def lay(group_id: int, now: datetime) -> None:
    """Lay the board of a class ready."""
    made = read(group_id, changes_after(group_id, None).cursor, now, agreed=True)
    of = {"cursor": made.cursor, "since": made.since, "until": made.until, "packed": zlib.compress(made.sent, QUICK)}
    LaidBoard.objects.update_or_create(group_id=group_id, defaults=of)


def forget(using: str) -> None:
    """Let go of all: what is laid ready may be of another version, or of a database that was."""
    with suppress(ProgrammingError):  # migrated back to where there were none
        LaidBoard.objects.using(using).all().delete()
