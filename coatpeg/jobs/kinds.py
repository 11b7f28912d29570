"""Kinds of background work: how long each may take, how often it is tried, what is done when it is given up."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from django.utils.module_loading import import_string
from django_tasks import task
from django_tasks.base import Task

MOST_TRIES = 3
"""Once for bad luck, once more for a restart of the machine; what fails a third time is wrong itself."""
USUAL_LIMIT = timedelta(minutes=5)


@dataclass(frozen=True, slots=True)
class Kind:
    """How work of one kind is run.

    ``name`` says to a person what it is. ``given_up`` is called with the job's arguments and the reason in words, once,
    when it is set aside.
    """

    name: str
    limit: timedelta = USUAL_LIMIT
    tries: int = MOST_TRIES
    back_off: timedelta = timedelta(seconds=5)
    """How long after the first failure it is tried again; four times as long after each further one."""
    given_up: Callable[..., None] | None = None

    def again_after(self, attempts: int) -> timedelta:
        """How long to wait after so many attempts."""
        return self.back_off * int(4 ** (attempts - 1))


_KINDS: dict[str, Kind] = {}
GONE = Kind("work of a kind that this version does not have")


def job(kind: Kind) -> Callable[[Callable[..., Any]], Task[..., Any]]:
    """Make a function a kind of background work: ``it.enqueue(…)`` in the transaction that asks for it."""

    def made(function: Callable[..., Any]) -> Task[..., Any]:
        found: Task[..., Any] = task()(function)
        _KINDS[found.module_path] = kind
        return found

    return made


def kind_of(path: str) -> Kind:
    """The kind of a job by the path of its function; ``GONE`` where there is no such function any more."""
    if path not in _KINDS:
        try:
            import_string(path)
        except ImportError:
            return GONE
    return _KINDS.get(path, GONE)
