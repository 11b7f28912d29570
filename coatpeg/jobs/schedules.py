"""What is looked after again and again: each room registers what it looks for, and the job that sees to it.

Decided here: a look is cheap and any worker takes it; only where it finds something is a job enqueued, and none where
one of the same function waits or runs already. Two workers that look in the same moment may enqueue two: the second
finds nothing to do.
"""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from django_tasks import TaskResultStatus
from django_tasks.base import Task
from django_tasks_db.models import DBTaskResult


@dataclass(frozen=True, slots=True)
class Schedule:
    """A look every so many seconds; ``is_due`` says whether there is anything to do."""

    name: str
    seconds: float
    is_due: Callable[[], bool]
    job: Task[..., Any]


_SCHEDULES: list[Schedule] = []


def every(name: str, seconds: float, is_due: Callable[[], bool], job: Task[..., Any]) -> None:
    """Register a look; once, as the application starts."""
    assert all(one.name != name for one in _SCHEDULES), name
    _SCHEDULES.append(Schedule(name, seconds, is_due, job))


def enqueue_once(job: Task[..., Any], *arguments: Any) -> bool:
    """Enqueue a job unless the same, with the same arguments, waits or runs; True where it did."""
    open_jobs = DBTaskResult.objects.filter(
        task_path=job.module_path, status__in=(TaskResultStatus.READY, TaskResultStatus.RUNNING)
    )
    if any(one == list(arguments) for one in open_jobs.values_list("args_kwargs__args", flat=True)):
        return False
    job.enqueue(*arguments)
    return True


class Looks:
    """One worker's looks: when each is next."""

    def __init__(self) -> None:
        self._next: dict[str, float] = {}

    def take(self) -> int:
        """Take the looks whose time has come; returns how many jobs were enqueued."""
        made = 0
        for one in _SCHEDULES:
            if time.monotonic() >= self._next.get(one.name, 0):
                self._next[one.name] = time.monotonic() + one.seconds
                made += one.is_due() and enqueue_once(one.job)
        return made
