"""The one worker: django-tasks' own, with leases, retries, looks, and an end to what takes too long."""

from __future__ import annotations

import logging
import os
import threading
import time
from typing import Any

from django.db import Error, close_old_connections, connection
from django.utils import timezone
from django.utils.module_loading import import_string
from django_tasks import TaskResultStatus
from django_tasks_db.management.commands.db_worker import Worker as QueueWorker

from coatpeg.jobs import leases
from coatpeg.jobs.kinds import kind_of
from coatpeg.jobs.schedules import Looks

INTERVAL = 0.3
"""Seconds between two looks into an empty queue."""
EXPIRED_EVERY = 5.0
TOO_LONG = 70
"""The exit code of a worker that ended itself because a job took too long."""
log = logging.getLogger("coatpeg.jobs")


class Worker(QueueWorker):
    """Runs jobs one after the other until it is told to stop; survives a database that is away."""

    def __init__(self, name: str, *, once: bool = False) -> None:
        super().__init__(
            queue_names=["*"],
            interval=INTERVAL,
            batch=True,
            backend_name="default",
            startup_delay=False,
            max_tasks=1,
            worker_id=name,
            excluded_queue_names=[],
        )
        self.once = once
        self.looks = Looks()
        self._expired_at = 0.0

    def run(self) -> None:
        """Take back what was left, then look, work, rest."""
        begun = away = False
        while self.running:
            try:
                if not begun:
                    leases.take_back_of(self.worker_id, timezone.now())
                    begun = True
                busy = self._turn()
                away = False
            except Error as error:
                connection.close()
                if not away:
                    log.warning("the database is away (%s); waiting for it", error)
                # Whatever it was at is not settled: it is taken back as after a restart.
                begun, busy, away = False, False, True
            if self.once and not busy:
                return
            if self.running and not busy:
                time.sleep(INTERVAL)

    def _turn(self) -> bool:
        """Look after what is to be looked after and run one job; whether there was one."""
        close_old_connections()
        if time.monotonic() >= self._expired_at:
            self._expired_at = time.monotonic() + EXPIRED_EVERY
            leases.take_back_expired(timezone.now())
        self.looks.take()
        before = self._run_tasks = 0
        super().run()
        return self._run_tasks > before

    def run_task(self, db_task_result: leases.Job) -> None:
        """Run one job within its time; what fails is tried again or set aside."""
        limit = kind_of(db_task_result.task_path).limit.total_seconds()
        watch = threading.Timer(limit, self._end, [db_task_result, limit])
        watch.daemon = True
        watch.start()
        try:
            super().run_task(db_task_result)
        finally:
            watch.cancel()
        if db_task_result.status == TaskResultStatus.FAILED:
            leases.settle_failure(db_task_result, _class_of(db_task_result.exception_class_path), timezone.now())

    def _end(self, job: leases.Job, limit: float) -> None:
        """End this process: nothing else stops every kind of job. Whoever supervises it starts it anew."""
        log.error("job %s (%s) took longer than %.0f s; this worker ends", job.pk, job.task_path, limit)
        os._exit(TOO_LONG)


def _class_of(path: str) -> type[BaseException] | None:
    try:
        found: Any = import_string(path)
    except ImportError:
        return None
    return found if isinstance(found, type) and issubclass(found, BaseException) else None
