"""What of the background work is stuck or dead, in words: for ``/health`` and ``./peg check``."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any

from django.db.models import Count, Min, QuerySet
from django_tasks_db.models import DBTaskResult

from coatpeg.jobs import leases
from coatpeg.jobs.kinds import kind_of

STUCK = timedelta(minutes=2)
"""What is ready for longer than this waits for a worker that is not there: the longest usual job takes less."""
KEPT = timedelta(days=7)
"""How long a job that is done stays on record."""
KEPT_ASIDE = timedelta(days=90)
MOST_NAMED = 20


def waiting(now: datetime) -> int:
    """How many jobs are ready and wait for a worker."""
    return DBTaskResult.objects.ready().filter(run_after__lte=now).count()


def summary(now: datetime) -> dict[str, Any]:
    """How the background work stands: what waits, and the kinds that are stuck or were set aside. Three queries."""
    aside = DBTaskResult.objects.failed().order_by().values_list("task_path", flat=True).distinct()
    stuck = _late(now).order_by().values_list("task_path", flat=True).distinct()
    named = {"stuck": stuck, "set_aside": aside}
    return {"waiting": waiting(now), **{key: sorted({kind_of(one).name for one in of}) for key, of in named.items()}}


def _late(now: datetime) -> QuerySet[leases.Job]:
    """Jobs that have been ready for too long; one that is to run later is not late before that."""
    ready = DBTaskResult.objects.ready().filter(enqueued_at__lt=now - STUCK)
    return ready.exclude(run_after__range=(now - STUCK, now + timedelta(days=365)))


def complaints(now: datetime) -> Iterator[str]:
    """One line for each kind of job that waits too long, and one for each that was set aside."""
    for path, count, since in _late(now).order_by().values_list("task_path").annotate(Count("pk"), Min("enqueued_at")):
        yield f"{kind_of(path).name}: {count} waiting since {since:%a %-d %b, %H:%M} UTC; is a worker running?"
    for job in DBTaskResult.objects.failed().order_by("-finished_at")[:MOST_NAMED]:
        yield f"{kind_of(job.task_path).name}: set aside after {len(job.worker_ids)} attempts: {leases.reason(job)}"


def has_old(now: datetime) -> bool:
    """Whether there is anything to forget."""
    return DBTaskResult.objects.finished().filter(finished_at__lt=now - KEPT).exists()


def forget_old(now: datetime) -> int:
    """Forget jobs that were done long ago; returns how many."""
    done, _ = DBTaskResult.objects.successful().filter(finished_at__lt=now - KEPT).delete()
    aside, _ = DBTaskResult.objects.failed().filter(finished_at__lt=now - KEPT_ASIDE).delete()
    return done + aside
