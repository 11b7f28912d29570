"""Leases, tries and poison, told from the queue's own rows.

A job's row names every worker that began it, so their number is the number of attempts. Decided here:

* A job is leased for as long as its kind may take; a worker that takes longer ends itself (``worker``), and after the
  lease, with some grace for slow clocks, another one takes the job.
* Workers have names that stay. One that starts takes back at once what it left half-done when it was killed.
* What fails is tried again after a while, up to its kind's tries; then it stays as *failed*: set aside, named by
  ``health``, and its kind is told. What the application itself refuses (``CoatPegError``) would be refused again: it is
  set aside at once.
"""

from __future__ import annotations

import logging
from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from django_tasks import TaskResultStatus
from django_tasks_db.models import DBTaskResult

from coatpeg.core.errors import CoatPegError
from coatpeg.jobs.kinds import Kind, kind_of

GRACE = timedelta(seconds=15)
"""What is given beyond a lease before somebody else takes the job."""
ENDED = "coatpeg.jobs.leases.WorkerEnded"
Job = DBTaskResult[..., Any]
log = logging.getLogger("coatpeg.jobs")


class WorkerEnded(Exception):
    """The worker was killed, or ended itself because the job took too long."""


def take_back_of(worker: str, now: datetime) -> int:
    """Take back what a worker of this name left half-done; returns how many jobs."""
    running = DBTaskResult.objects.running()
    return _take_back((one for one in running if one.worker_ids and one.worker_ids[-1] == worker), now)


def take_back_expired(now: datetime) -> int:
    """Take back what has been running for longer than its lease; returns how many jobs."""
    begun = DBTaskResult.objects.running().filter(started_at__lt=now - GRACE)
    return _take_back(
        (one for one in begun if one.started_at and one.started_at < now - GRACE - kind_of(one.task_path).limit), now
    )


def _take_back(jobs: Iterable[Job], now: datetime) -> int:
    count = 0
    for seen in list(jobs):
        with transaction.atomic():
            running = DBTaskResult.objects.select_for_update(skip_locked=True).running()
            job = running.filter(pk=seen.pk, started_at=seen.started_at).first()
            if job is not None:
                job.exception_class_path, job.traceback = ENDED, "The worker ended while it ran."
                again_or_aside(job, now, at_once=True)
                count += 1
    return count


def settle_failure(job: Job, error: type[BaseException] | None, now: datetime) -> None:
    """See to a job that has failed just now: again after a while, or set aside."""
    final = error is not None and issubclass(error, CoatPegError)
    with transaction.atomic():
        again_or_aside(job, now, final=final)


def again_or_aside(job: Job, now: datetime, *, at_once: bool = False, final: bool = False) -> None:
    """Make a job ready once more, or set it aside for good. Call in a transaction."""
    kind, attempts = kind_of(job.task_path), len(job.worker_ids)
    if attempts < kind.tries and not final:
        job.status = TaskResultStatus.READY
        job.run_after = now if at_once else now + kind.again_after(attempts)
        job.save(update_fields=["status", "run_after", "exception_class_path", "traceback"])
        return
    job.status, job.finished_at = TaskResultStatus.FAILED, now
    job.save(update_fields=["status", "finished_at", "exception_class_path", "traceback"])
    _tell(job, kind)


def _tell(job: Job, kind: Kind) -> None:
    """Say in the log, and to its kind, that a job is set aside."""
    why = reason(job)
    log.error("set aside: %s (job %s, %d attempts): %s", kind.name, job.pk, len(job.worker_ids), why)
    if kind.given_up is not None:
        kind.given_up(*job.args_kwargs["args"], why=why)


def reason(job: Job) -> str:
    """Why a job failed, in one line: the last of its traceback."""
    lines = str(job.traceback).strip().splitlines()
    return lines[-1][:300] if lines else str(job.exception_class_path)
