"""Putting a notice in: one row, in the deed's own transaction."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from coatpeg.events.recording import Deed
from coatpeg.notices.kinds import kind_of
from coatpeg.notices.models import Notice


def put(doing: Deed, what: str, group_id: int | None, *, tell_at: datetime | None = None, **data: int) -> Notice:
    """Tell something of a kind: ``data`` are the ids it is about; nobody is told before ``tell_at``."""
    assert kind_of(what) is not None, what
    return Notice.objects.create(
        what=what, group_id=group_id, data=data, by_id=doing.actor_id, at=doing.now, tell_at=tell_at or doing.now
    )


def put_many(
    doing: Deed, what: str, group_id: int, about: Iterable[dict[str, int]], *, tell_at: datetime | None = None
) -> None:
    """The same for many things of a kind at once: a notice for each."""
    assert kind_of(what) is not None, what
    Notice.objects.bulk_create(
        [
            Notice(
                what=what,
                group_id=group_id,
                data=data,
                by_id=doing.actor_id,
                at=doing.now,
                tell_at=tell_at or doing.now,
            )
            for data in about
        ],
        batch_size=500,
    )


def take_back(what: str, group_id: int, handin_id: int, enrolments: Iterable[int]) -> None:
    """Let go of what was to be told of these students and this hand-in, where nobody was told yet."""
    waiting = Notice.objects.filter(what=what, group_id=group_id, fanned_at=None, data__handin=handin_id)
    waiting.filter(data__enrolment__in=list(enrolments)).delete()
