"""Everything that is kept for speed, compared with what it is derived from."""

from __future__ import annotations

from collections.abc import Iterator

from coatpeg.core.snapshots import digest
from coatpeg.events.models import Event, GroupSequence
from coatpeg.handins import records
from coatpeg.handins.models import Submission
from coatpeg.portfolios import files
from coatpeg.portfolios.contents import miscounted


def differences() -> Iterator[str]:
    """One line for each difference: facts, holds, counted contents, snapshots, files, event sequences."""
    yield from records.differences()
    yield from miscounted()
    for pk, snapshot, sha256 in Submission.objects.values_list("pk", "snapshot", "sha256").iterator():
        if digest(snapshot) != sha256:
            yield f"submission {pk}: its content does not have the hash it was handed in with"
    yield from (f"file {sha256}: missing or damaged in the store" for sha256 in files.damaged())
    for sequence in GroupSequence.objects.all():
        count = Event.objects.filter(group_id=sequence.group_id).count()
        if count != sequence.last:
            yield f"group {sequence.group_id}: {count} events, but the sequence stands at {sequence.last}"
