"""Measurements inside the application; prints one JSON object. Run by ``./peg bench`` against the demo's world."""

from __future__ import annotations

import gc
import json
import random
import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from importlib import import_module
from statistics import median
from typing import Any

from django.conf import settings

ROUNDS = 40
STUDENTS, HANDINS = 2000, 60


def timed(job: Callable[[], Any], rounds: int = ROUNDS) -> float:
    """The median seconds of a job, after a few runs to warm up."""
    for _ in range(5):
        job()
    spent = []
    for _ in range(rounds):
        begun = time.perf_counter()
        job()
        spent.append(time.perf_counter() - begun)
    return median(spent)


def board() -> dict[str, Any]:
    """The board's API against the same rows by plain SQL through the same driver and connection."""
    from django.db import connection  # noqa: PLC0415 - needs settings
    from django.test import Client  # noqa: PLC0415
    from django.test.utils import CaptureQueriesContext  # noqa: PLC0415

    from coatpeg.people.models import Person, TeachingGroup  # noqa: PLC0415

    group = TeachingGroup.objects.get(name__startswith="8 Plot")
    client = Client()
    client.force_login(Person.objects.get(username="okafor"), "django.contrib.auth.backends.ModelBackend")
    path = f"/api/groups/{group.pk}/pegs"
    with CaptureQueriesContext(
        connection,
    ) as captured:
        answer = client.get(path)
    assert answer.status_code == 200
    statements = [query["sql"] for query in captured.captured_queries]
    connection.ensure_connection()
    driver = connection.connection

    def plain() -> int:
        rows = 0
        cursor = driver.cursor()
        for statement in statements:
            cursor.execute(statement)
            rows += len(cursor.fetchall())
        cursor.close()
        return rows

    rows = plain()
    api, sql = timed(lambda: client.get(path)), timed(plain)
    return {"queries": len(statements), "rows": rows, "api": api, "sql": sql, "ratio": api / sql}


def engine() -> dict[str, Any]:
    """The status engine against a bare loop that builds the same number of result tuples."""
    from coatpeg.core.calendar import SchoolCalendar, Term  # noqa: PLC0415
    from coatpeg.core.standing import Facts, Standing, Status, judge_column  # noqa: PLC0415

    dealer = random.Random(60)
    now = datetime(2026, 11, 4, 12, tzinfo=UTC)
    term = Term("Autumn", (now - timedelta(days=58)).date(), (now + timedelta(days=37)).date())
    calendar = SchoolCalendar((term,), zone="Europe/London")
    columns: list[list[tuple[Facts | None, bool, datetime | None, bool]]] = []
    for number in range(HANDINS):
        due = now + timedelta(hours=36 * (number - 40))
        column: list[tuple[Facts | None, bool, datetime | None, bool]] = []
        for _ in range(STUDENTS):
            draw = dealer.random()
            if draw < 0.3:
                column.append((None, True, due, draw < 0.1))
                continue
            at = due + timedelta(hours=dealer.randint(1, 200) * (1 if draw < 0.4 else -1))
            outcome = Status.ACCEPTED if draw < 0.8 else Status.SENT_BACK if draw < 0.85 else None
            column.append((Facts(at, 1, at, 1, outcome), True, due, True))
        columns.append(column)
    opens = now - timedelta(days=60)

    def judged() -> None:
        for column in columns:
            judge_column(column, opens=opens, now=now, calendar=calendar)

    def bare() -> None:
        status = Status.HANDED_IN
        for column in columns:
            built = []
            for _ in column:
                built.append(Standing(status, False, 0, None, False, None))

    gc.disable()
    ours, loop = timed(judged, 7), timed(bare, 7)
    gc.enable()
    return {"cells": STUDENTS * HANDINS, "engine": ours, "loop": loop, "ratio": ours / loop}


def main() -> None:
    """Measure and print."""
    import_module("coatpeg.web.wsgi")  # as it is served
    settings.ALLOWED_HOSTS.append("testserver")
    print(json.dumps({"board": board(), "engine": engine()}))


if __name__ == "__main__":
    main()
