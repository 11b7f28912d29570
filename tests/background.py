"""Letting the background work, within a test's transaction."""

from __future__ import annotations

from contextlib import ExitStack
from unittest import mock

from coatpeg.jobs.worker import Worker


def run_waiting(name: str = "once") -> None:
    """Run everything that is ready. A worker lets connections go between jobs; a test's transaction has to stay."""
    with ExitStack() as stack:
        for place in ("coatpeg.jobs.worker", "django_tasks_db.management.commands.db_worker"):
            stack.enter_context(mock.patch(f"{place}.close_old_connections"))
        Worker(name, once=True).run()
