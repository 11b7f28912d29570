"""Fanning notices out to everybody they are for."""

from __future__ import annotations

from datetime import datetime, timedelta

from django.db import transaction
from django.utils import timezone

from coatpeg.jobs.kinds import Kind, job
from coatpeg.notices.kinds import kind_of
from coatpeg.notices.models import Delivery, Notice

AT_ONCE = 200
"""Notices of one run: what comes while it runs waits for the next."""
KEPT = timedelta(days=90)
"""How long a notice is kept; the bell shows those of thirty days."""


def is_due() -> bool:
    """Whether anything is to be fanned out now."""
    return Notice.objects.filter(fanned_at=None, tell_at__lte=timezone.now()).exists()


@job(Kind("telling people what is new"))
def fan_out() -> int:
    """Give every notice whose time has come to its audience; returns how many. Whoever did it mostly knows."""
    now = timezone.now()
    due = Notice.objects.filter(fanned_at=None, tell_at__lte=now).order_by("pk").values_list("pk", flat=True)
    return sum(_fanned(pk, now) for pk in list(due[:AT_ONCE]))


def _fanned(notice_id: int, now: datetime) -> bool:
    """One notice, in a transaction of its own: a stop half-way tells nobody twice."""
    with transaction.atomic():
        notice = Notice.objects.select_for_update(skip_locked=True).filter(pk=notice_id, fanned_at=None).first()
        kind = kind_of(notice.what) if notice else None
        if notice is None:
            return False
        people = set(kind.audience(notice)) if kind else set()
        if kind and not kind.to_doer:
            people.discard(notice.by_id)
        Delivery.objects.bulk_create(
            (Delivery(notice=notice, person_id=one) for one in sorted(people)), ignore_conflicts=True, batch_size=1000
        )
        notice.fanned_at = now
        notice.save(update_fields=["fanned_at"])
        return True


@job(Kind("forgetting old notices"))
def forget() -> int:
    """Forget notices of long ago; returns how many rows went."""
    gone, _ = Notice.objects.filter(at__lt=timezone.now() - KEPT).delete()
    return gone


def has_old() -> bool:
    """Whether there is anything to forget."""
    return Notice.objects.filter(at__lt=timezone.now() - KEPT).exists()
