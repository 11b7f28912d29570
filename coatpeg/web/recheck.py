"""Everything that is kept for speed, compared with what it is derived from."""

from __future__ import annotations

from collections.abc import Iterator

from django.db import connection, transaction

from coatpeg.core.handins.snapshots import digest
from coatpeg.events.models import Event, GroupSequence
from coatpeg.files import keeping
from coatpeg.handins.handing import records
from coatpeg.handins.models import Submission
from coatpeg.portfolios.counting import miscounted
from coatpeg.sharing import settling


def differences() -> Iterator[str]:
    """One line for each difference: facts, holds, counted contents, shared pages, snapshots, files, event sequences.

    All is read as it stood at one moment: what is written meanwhile is no difference.
    """
    if not connection.in_atomic_block:
        with connection.cursor() as cursor:
            cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ")
    with transaction.atomic():
        yield from _differences()


def _differences() -> Iterator[str]:
    yield from records.differences()
    yield from miscounted()
    yield from settling.differences()
    for pk, snapshot, sha256 in Submission.objects.values_list("pk", "snapshot", "sha256").iterator():
        if digest(snapshot) != sha256:
            yield f"submission {pk}: its content does not have the hash it was handed in with"
    yield from (f"file {sha256}: missing or damaged in the store" for sha256 in keeping.damaged())
    for sequence in GroupSequence.objects.all():
        count = Event.objects.filter(group_id=sequence.group_id).count()
        if count + sequence.moved != sequence.last:
            yield (
                f"group {sequence.group_id}: {count} events and {sequence.moved} moves, "
                f"but the sequence stands at {sequence.last}"
            )
