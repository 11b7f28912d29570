"""Measurements inside the application; prints one JSON object. Run by ``./peg bench`` against the demo's world."""

from __future__ import annotations

import gc
import json
import random
import re
import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from importlib import import_module
from statistics import median
from typing import Any

from django.conf import settings

ROUNDS = 40
STUDENTS, HANDINS = 2000, 60


def side_by_side(job: Callable[[], Any], against: Callable[[], Any], rounds: int = ROUNDS) -> tuple[float, float]:
    """The median seconds of a job and of what it is measured against, after a few runs to warm up.

    They take turns, so that a machine that is slow for a moment is slow for both.
    """
    spent: tuple[list[float], list[float]] = ([], [])
    for number in range(rounds + 5):
        for one, times in zip((job, against), spent, strict=True):
            begun = time.perf_counter()
            one()
            if number >= 5:
                times.append(time.perf_counter() - begun)
    return median(spent[0]), median(spent[1])


def board() -> dict[str, Any]:
    """The board's API against the same rows by plain SQL through the same driver and connection."""
    from django.core.wsgi import get_wsgi_application  # noqa: PLC0415
    from django.db import connection  # noqa: PLC0415 - needs settings
    from django.test import Client, RequestFactory  # noqa: PLC0415
    from django.test.utils import CaptureQueriesContext  # noqa: PLC0415

    from coatpeg.people.models import Person, TeachingGroup  # noqa: PLC0415

    group = TeachingGroup.objects.get(name__startswith="8 Plot")
    client = Client()
    client.force_login(Person.objects.get(username="okafor"), "django.contrib.auth.backends.ModelBackend")
    path = f"/api/groups/{group.pk}/pegs"
    application = get_wsgi_application()
    environ = RequestFactory(HTTP_COOKIE=client.cookies.output(header="", sep=";")).get(path).environ

    def begun(status: str, headers: list[tuple[str, str]], error: Any = None) -> Callable[[bytes], None]:
        assert status == "200 OK"
        return lambda written: None

    def ask() -> bytes:
        """The whole application, as a server calls it."""
        return b"".join(application(dict(environ), begun))

    ask()  # the first one also reads the calendar, which the process keeps
    with CaptureQueriesContext(connection) as captured:
        assert b'"students"' in ask()
    # Plain SQL names its columns as they are: without what ``events.moments`` adds.
    statements = [
        re.sub(r"CONCAT\((`\w+`\.`\w+`), '\+00:00'\)", r"\1", one["sql"]) for one in captured.captured_queries
    ]
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
    api, sql = side_by_side(ask, plain)
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
    ours, loop = side_by_side(judged, bare, 7)
    gc.enable()
    return {"cells": STUDENTS * HANDINS, "engine": ours, "loop": loop, "ratio": ours / loop}


def year_group() -> dict[str, Any]:
    """A year group of 2,000 in one paste: read, told line by line, and written (then rolled back)."""
    from django.db import transaction  # noqa: PLC0415 - needs settings
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.core.policy import Role  # noqa: PLC0415
    from coatpeg.core.roster_table import guess, read_text  # noqa: PLC0415
    from coatpeg.people.class_lists import ClassList, preview  # noqa: PLC0415
    from coatpeg.people.models import Person, StaffRole, TeachingGroup  # noqa: PLC0415
    from coatpeg.portfolios.enrolling import apply_list  # noqa: PLC0415

    lines = (f"Student{number:04}\tAda\tada{number}@larkfield.example\t{90_000 + number}" for number in range(STUDENTS))
    text = "Family name\tGiven name\tE-mail\tNumber\n" + "\n".join(lines)
    now = timezone.now()
    with transaction.atomic():
        lead = Person.objects.get(username="okafor")
        group = TeachingGroup.objects.create(
            name="Year group", kind="cohort", first=now.date(), last=now.date() + timedelta(days=400)
        )
        StaffRole.objects.create(group=group, person=lead, role=Role.LEAD.value)
        begun = time.perf_counter()
        table = read_text(text)
        of = ClassList(table.rows, guess(table))
        told = preview(lead, group.pk, of, now)
        read = time.perf_counter() - begun
        begun = time.perf_counter()
        done = apply_list(lead, group.pk, of, now)
        written = time.perf_counter() - begun
        assert len(told.lines) == done.counts["new"] == STUDENTS
        transaction.set_rollback(True)
    return {"preview": read, "written": written}


def main() -> None:
    """Measure and print."""
    import_module("coatpeg.web.wsgi")  # as it is served
    settings.ALLOWED_HOSTS.append("testserver")
    print(json.dumps({"board": board(), "engine": engine(), "year_group": year_group()}))


if __name__ == "__main__":
    main()
