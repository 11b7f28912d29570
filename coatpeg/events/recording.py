"""Writing events: every command runs in one ``deed``.

The events of a deed get their numbers as the last step of its transaction, under a row lock on the
group's sequence that is held until the commit. So numbers become visible in their own order, and a
reader who asks for what came after *n* can never miss one.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime, timedelta
from itertools import groupby
from typing import Any

from django.db import connection, transaction
from django.db.models import F

from coatpeg.events.kinds import KIND_OF
from coatpeg.events.models import Event, GroupSequence, MovedWork

MOVES_APART = timedelta(seconds=20)
"""How far apart moves of the same work are told: "last work" is shown by the minute, a text saves itself every few
seconds."""


class Deed:
    """What one person does at one moment; collects events until the end of the transaction."""

    def __init__(self, actor_id: int | None, now: datetime) -> None:
        self.actor_id = actor_id
        self.now = now
        self._events: list[Event] = []
        self._moved: set[tuple[int, int, int]] = set()

    def record(
        self,
        verb: str,
        group_id: int,
        *,
        enrolment_id: int | None = None,
        handin_id: int | None = None,
        submission_id: int | None = None,
        at: datetime | None = None,
        **data: Any,
    ) -> None:
        """Add one event; ``data`` holds ids, hashes and reasons, never content."""
        assert verb in KIND_OF, f"give “{verb}” a kind"
        self._events.append(
            Event(
                group_id=group_id,
                verb=verb,
                actor_id=self.actor_id,
                at=at or self.now,
                enrolment_id=enrolment_id,
                handin_id=handin_id,
                submission_id=submission_id,
                data=data,
            )
        )

    def moved(self, group_id: int, enrolment_id: int, pocket_id: int) -> None:
        """Say that a student's work moved where nothing happened that is an event, so that whoever follows is told."""
        self._moved.add((group_id, enrolment_id, pocket_id))

    def write(self) -> None:
        """Number the events, group by group in ascending order (so that two deeds never wait in a ring)."""
        in_order = sorted(self._events, key=lambda event: event.group_id)
        for group_id, of_group in groupby(in_order, key=lambda event: event.group_id):
            events = list(of_group)
            last = next_numbers(group_id, len(events))
            for number, event in enumerate(events, start=last - len(events) + 1):
                event.number = number
        Event.objects.bulk_create(in_order, batch_size=500)
        for group_id, enrolment_id, pocket_id in sorted(self._moved):
            _move(group_id, enrolment_id, pocket_id, self.now)


def _move(group_id: int, enrolment_id: int, pocket_id: int, now: datetime) -> None:
    """Give moved work a number; not again where it has had one a moment ago."""
    kept = MovedWork.objects.filter(enrolment_id=enrolment_id, pocket_id=pocket_id)
    if kept.filter(at__gt=now - MOVES_APART).exists():
        return
    number = next_numbers(group_id, 1)
    GroupSequence.objects.filter(group_id=group_id).update(moved=F("moved") + 1)
    MovedWork.objects.update_or_create(
        enrolment_id=enrolment_id, pocket_id=pocket_id, defaults={"group_id": group_id, "number": number, "at": now}
    )


def next_numbers(group_id: int, count: int) -> int:
    """Take ``count`` numbers of a group under its row lock; returns the last of them."""
    if not GroupSequence.objects.filter(group_id=group_id).update(last=F("last") + count):
        # Two first events of a group at once: an INSERT that meets the other's row keeps a shared lock on it, and both
        # would wait for the other to let go. This one statement locks the row for itself.
        table = connection.ops.quote_name(GroupSequence._meta.db_table)
        with connection.cursor() as cursor:
            cursor.execute(
                f"INSERT INTO {table} (group_id, last, moved) VALUES (%s, %s, 0)"
                " ON DUPLICATE KEY UPDATE last = last + VALUES(last)",
                (group_id, count),
            )
    return GroupSequence.objects.get(group_id=group_id).last


@contextmanager
def deed(actor_id: int | None, now: datetime) -> Iterator[Deed]:
    """The transaction of one command; its events are written last."""
    with transaction.atomic():
        doing = Deed(actor_id, now)
        yield doing
        doing.write()
