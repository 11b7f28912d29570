"""Measurements inside the application; prints one JSON object. Run by ``./peg bench`` against the demo's world."""

from __future__ import annotations

import gc
import gzip
import json
import random
import re
import sys
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from importlib import import_module
from statistics import median
from typing import Any

from django.conf import settings

from operations import measuring_cupboard, measuring_many, measuring_marking, measuring_shared

ROUNDS = 40
STUDENTS, HANDINS = 2000, 60
LARGE_ROUNDS = 8


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


def against_sql(
    username: str, path: str, sign: bytes, rounds: int = ROUNDS, before: Callable[[], None] = lambda: None
) -> dict[str, Any]:
    """A read of the API against the same rows by plain SQL through the same driver and connection.

    ``before`` is done before each, so that nothing helps that is kept from the one before.
    """
    from django.core.wsgi import get_wsgi_application  # noqa: PLC0415
    from django.db import connection  # noqa: PLC0415 - needs settings
    from django.test import Client, RequestFactory  # noqa: PLC0415
    from django.test.utils import CaptureQueriesContext  # noqa: PLC0415

    from coatpeg.people.models import Person  # noqa: PLC0415

    client = Client()
    client.force_login(Person.objects.get(username=username), "django.contrib.auth.backends.ModelBackend")
    application = get_wsgi_application()
    environ = RequestFactory(HTTP_COOKIE=client.cookies.output(header="", sep=";")).get(path).environ

    def begun(status: str, headers: list[tuple[str, str]], error: Any = None) -> Callable[[bytes], None]:
        assert status == "200 OK"
        return lambda written: None

    def ask() -> bytes:
        """The whole application, as a server calls it."""
        before()
        return b"".join(application(dict(environ), begun))

    ask()  # the first one also reads the calendar, which the process keeps
    with CaptureQueriesContext(connection) as captured:
        assert sign in ask()
    # Plain SQL names its columns as they are: without what ``events.moments`` adds.
    statements = [
        re.sub(r"CONCAT\((`\w+`\.`\w+`), '\+00:00'\)", r"\1", one["sql"]) for one in captured.captured_queries
    ]

    def plain() -> int:
        rows = 0
        connection.ensure_connection()  # a connection of a minute's age is closed before the next request
        cursor = connection.connection.cursor()
        for statement in statements:
            cursor.execute(statement)
            rows += len(cursor.fetchall())
        cursor.close()
        return rows

    rows = plain()
    api, sql = side_by_side(ask, plain, rounds)
    return {"queries": len(statements), "rows": rows, "api": api, "sql": sql, "ratio": api / sql}


def board() -> dict[str, Any]:
    """The board's API."""
    from coatpeg.people.models import TeachingGroup  # noqa: PLC0415

    group = TeachingGroup.objects.get(name__startswith="8 Plot")
    path = f"/api/groups/{group.pk}/pegs"
    return against_sql("okafor", path, b'"students"', before=_forgotten) | _opened_again(group.pk, path, ROUNDS)


def _forgotten() -> None:
    from coatpeg.handins.board import kept  # noqa: PLC0415 - needs settings

    kept.forget()


def _opened_again(group_id: int, path: str, rounds: int) -> dict[str, float]:
    """Seconds of a board that was laid ready, of one that stands, and of one where a student has written since.

    The two last are rolled back.
    """
    from django.db import transaction  # noqa: PLC0415 - needs settings
    from django.test import Client  # noqa: PLC0415
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.events.recording import deed  # noqa: PLC0415
    from coatpeg.handins.board import laid  # noqa: PLC0415
    from coatpeg.handins.models import HandIn  # noqa: PLC0415
    from coatpeg.people.models import Enrolment, Person  # noqa: PLC0415

    client = Client()
    client.force_login(Person.objects.get(username="okafor"), "django.contrib.auth.backends.ModelBackend")
    handin = HandIn.objects.filter(group_id=group_id).prefetch_related("pockets").first()
    assert handin is not None
    pocket = handin.pockets.all()[0]
    students = list(Enrolment.objects.filter(group_id=group_id, last=None).values_list("pk", flat=True)[:rounds])
    spent: dict[str, list[float]] = {"laid": [], "after_one": [], "stands": []}

    def timed(name: str) -> None:
        begun = time.perf_counter()
        answer = client.get(path)
        spent[name].append(time.perf_counter() - begun)
        assert answer.status_code == 200

    laid.lay(group_id, timezone.now())
    for _ in range(rounds):
        _forgotten()
        timed("laid")
    laid.forget("default")
    with transaction.atomic():
        for student in students:
            with deed(None, timezone.now()) as doing:
                doing.record("text_written", group_id, enrolment_id=student, pocket=pocket.pk)
            timed("after_one")
            timed("stands")
        transaction.set_rollback(True)
    _forgotten()  # the events that it knows of never were
    return {name: median(times[1:]) for name, times in spent.items()}


def poll() -> dict[str, Any]:
    """A poll where nothing is new against the emptiest operation of somebody who is signed in, turn by turn."""
    from django.core.wsgi import get_wsgi_application  # noqa: PLC0415
    from django.db import connection  # noqa: PLC0415 - needs settings
    from django.test import Client, RequestFactory  # noqa: PLC0415
    from django.test.utils import CaptureQueriesContext  # noqa: PLC0415

    from coatpeg.people.models import Person, TeachingGroup  # noqa: PLC0415

    group = TeachingGroup.objects.get(name__startswith="8 Plot")
    client = Client()
    client.force_login(Person.objects.get(username="okafor"), "django.contrib.auth.backends.ModelBackend")
    application = get_wsgi_application()
    cookie = client.cookies.output(header="", sep=";")
    cursor = client.get(f"/api/groups/{group.pk}/changes").json()["cursor"]
    paths = (f"/api/groups/{group.pk}/changes?after={cursor}&board=true", "/api/feed")
    environs = [RequestFactory(HTTP_COOKIE=cookie).get(path).environ for path in paths]

    def ask(number: int) -> bytes:
        return b"".join(application(dict(environs[number]), lambda *_: lambda written: None))

    statements = []
    for number in (0, 1):
        ask(number)
        with CaptureQueriesContext(connection) as captured:
            ask(number)
        statements.append(len(captured.captured_queries))
    polled, empty = side_by_side(lambda: ask(0), lambda: ask(1), 200)
    # Of either, two statements are the session and its person.
    return {"poll": polled, "empty": empty, "ratio": polled / empty, "statements": statements[0] - 2}


def one_change() -> dict[str, Any]:
    """What a poll answers after one change, on a board of 56 × 9 and on one of 2,000 × 60; then rolled back."""
    from django.db import transaction  # noqa: PLC0415 - needs settings
    from django.test import Client  # noqa: PLC0415

    from coatpeg.people.models import Person, TeachingGroup  # noqa: PLC0415

    client = Client()
    client.force_login(Person.objects.get(username="okafor"), "django.contrib.auth.backends.ModelBackend")
    small = TeachingGroup.objects.get(name__startswith="8 Plot")
    with transaction.atomic():
        few = _told_of_one(client, small.pk)
        many = _told_of_one(client, large_class().pk)
        transaction.set_rollback(True)
    return {
        "small": few[0],
        "large": many[0],
        "ratio": many[0] / few[0],
        "small_bytes": few[1],
        "large_bytes": many[1],
    }


def large_class(handins: int = HANDINS, students: int = STUDENTS) -> Any:
    """A class of so many students with so many hand-ins, each of a pocket of its own."""
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.core.policy import Role  # noqa: PLC0415
    from coatpeg.handins.models import HandIn  # noqa: PLC0415
    from coatpeg.outlines.models import Pocket, Section, Template  # noqa: PLC0415
    from coatpeg.people.models import Enrolment, Person, StaffRole, TeachingGroup  # noqa: PLC0415
    from coatpeg.portfolios.models import Portfolio  # noqa: PLC0415

    today = timezone.now().date()
    group = TeachingGroup.objects.create(
        name="Large", kind="class", first=today - timedelta(days=60), last=today + timedelta(days=60)
    )
    StaffRole.objects.create(group=group, person=Person.objects.get(username="okafor"), role=Role.LEAD.value)
    section = Section.objects.create(template=Template.objects.create(group=group, title="Large"), title="All")
    people = Person.objects.bulk_create(Person(given_name=f"Ada{at}", family_name="Blom") for at in range(students))
    enrolled = Enrolment.objects.bulk_create(
        Enrolment(group=group, person=one, first=group.first, picture=f"p{at}", tint=0) for at, one in enumerate(people)
    )
    Portfolio.objects.bulk_create(Portfolio(enrolment=one) for one in enrolled)
    for number in range(handins):
        pocket = Pocket.objects.create(section=section, title=f"P{number}", kind="page", position=number)
        day = today + timedelta(days=number - 30)
        HandIn.objects.create(group=group, title=f"H{number}", opens=group.first, due_day=day).pockets.add(pocket)
    return group


def came_in(group: Any) -> None:
    """Most of what is due by now has come in, some of it late, some of it marked."""
    from django.utils import timezone  # noqa: PLC0415 - needs settings

    from coatpeg.handins.models import HandIn, KeptFacts  # noqa: PLC0415
    from coatpeg.people.models import Enrolment  # noqa: PLC0415

    chance, now = random.Random(3), timezone.now()
    enrolled = list(Enrolment.objects.filter(group=group).values_list("pk", flat=True))
    number = 10**12  # of no submission: the board counts what is kept of them
    rows = []
    for handin in HandIn.objects.filter(group=group, due_day__lt=now.date()):
        assert handin.due_day is not None
        ago = now.date() - handin.due_day
        for one in enrolled:
            number += 1
            if chance.random() < 0.85:
                at = now - ago - timedelta(minutes=chance.randint(-3000, 4000))
                outcome = chance.choice([None, "accepted", "accepted", "sent_back"])
                came = {"first_at": at, "newest_at": at, "newest": number, "submissions": 1, "outcome": outcome}
                rows.append(KeptFacts(handin=handin, enrolment_id=one, **came))
    KeptFacts.objects.bulk_create(rows, batch_size=2_000)


def large() -> dict[str, Any]:
    """The board of 2,000 × 60 against SQL, its bytes, asking for it again, moving a due date; then taken away."""
    from django.db import connection  # noqa: PLC0415 - needs settings
    from django.test import Client  # noqa: PLC0415
    from django.test.utils import CaptureQueriesContext  # noqa: PLC0415
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.core.handins.asking import Due  # noqa: PLC0415
    from coatpeg.events.models import Event  # noqa: PLC0415
    from coatpeg.handins.asked.setting import plan_of  # noqa: PLC0415
    from coatpeg.handins.changing.commands import change_handin  # noqa: PLC0415
    from coatpeg.handins.models import HandIn  # noqa: PLC0415
    from coatpeg.people.models import Person  # noqa: PLC0415

    client = Client()
    lead = Person.objects.get(username="okafor")
    client.force_login(lead, "django.contrib.auth.backends.ModelBackend")
    group_id = wide()
    path = f"/api/groups/{group_id}/pegs"
    found = against_sql("okafor", path, b'"students"', LARGE_ROUNDS, _forgotten)
    found |= _opened_again(group_id, path, LARGE_ROUNDS)
    sent = client.get(path)
    with CaptureQueriesContext(connection) as captured:
        again = client.get(path, headers={"If-None-Match": sent.headers["ETag"]})
    assert again.status_code == 304
    events = Event.objects.filter(group_id=group_id).count()
    handin = HandIn.objects.filter(group_id=group_id, due_day__gt=timezone.now().date()).earliest("due_day")
    plan = plan_of(handin)
    assert plan.due is not None
    moved = replace(plan, due=Due(plan.due.day + timedelta(days=7), None))
    begun = time.perf_counter()
    change_handin(lead, group_id, handin.pk, moved, handin.version, timezone.now())
    spent = time.perf_counter() - begun
    found |= {
        "bytes": len(sent.content),
        "compressed": len(gzip.compress(sent.content, 6)),
        # Two statements are the session and its person.
        "again": len(captured.captured_queries) - 2,
        "moved": spent,
        "events": Event.objects.filter(group_id=group_id).count() - events,
    }
    narrow(group_id)
    return found


def wide() -> int:
    """A class of 2,000 × 60 for the browser to look at; its number."""
    group = large_class()
    came_in(group)
    return int(group.pk)


def narrow(group_id: int) -> None:
    """Take the class of 2,000 × 60 away again, with its people."""
    from coatpeg.handins.models import HandIn  # noqa: PLC0415 - needs settings
    from coatpeg.people.models import Person, TeachingGroup  # noqa: PLC0415

    group = TeachingGroup.objects.get(pk=group_id)
    people = list(group.enrolments.values_list("person_id", flat=True))
    HandIn.objects.filter(group=group).delete()
    group.delete()
    Person.objects.filter(pk__in=people).delete()


def _told_of_one(client: Any, group_id: int) -> tuple[float, int]:
    """Seconds and bytes of the answer to a poll after one student has written in a pocket that a hand-in collects."""
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.events.recording import deed  # noqa: PLC0415
    from coatpeg.handins.models import HandIn  # noqa: PLC0415
    from coatpeg.people.models import Enrolment  # noqa: PLC0415

    path = f"/api/groups/{group_id}/changes"
    cursor = client.get(path).json()["cursor"]
    handin = HandIn.objects.filter(group_id=group_id).prefetch_related("pockets").first()
    assert handin is not None
    enrolment = Enrolment.objects.filter(group_id=group_id, last=None).first()
    assert enrolment is not None
    pocket = handin.pockets.all()[0]
    with deed(None, timezone.now()) as doing:
        doing.record("text_written", group_id, enrolment_id=enrolment.pk, pocket=pocket.pk)
    spent, size = [], 0
    for _ in range(ROUNDS):
        begun = time.perf_counter()
        answer = client.get(path, {"after": cursor, "board": "true"})
        spent.append(time.perf_counter() - begun)
        size = len(answer.content)
        assert len(answer.json()["rows"]) == 1
    return median(spent), size


ARTEFACTS = 400


def pockets() -> dict[str, Any]:
    """*My pockets* of a portfolio with many artefacts; what was added for it is taken away again."""
    from django.utils import timezone  # noqa: PLC0415 - needs settings

    from coatpeg.files.models import StoredFile  # noqa: PLC0415
    from coatpeg.outlines.models import Pocket  # noqa: PLC0415
    from coatpeg.portfolios import counting  # noqa: PLC0415
    from coatpeg.portfolios.models import Artefact, Evidence, PocketContent, Portfolio  # noqa: PLC0415

    book = Portfolio.objects.get(enrolment__person__username="thandi", enrolment__group__name__startswith="8 Plot")
    kinds = Pocket.objects.filter(section__template__group_id=book.enrolment.group_id, kind="evidence")
    now, stored = timezone.now(), StoredFile.objects.first()
    before = list(PocketContent.objects.filter(portfolio=book))
    made = Artefact.objects.bulk_create(
        Artefact(portfolio=book, kind="file", title=f"{number}.pdf", stored=stored, made_at=now)
        for number in range(ARTEFACTS)
    )
    into = list(kinds)
    evidence = Evidence.objects.bulk_create(
        Evidence(
            portfolio=book,
            pocket=into[at % len(into)],
            artefact=one,
            text="One thing. Another.",
            words=3,
            changed_at=now,
        )
        for at, one in enumerate(made)
    )
    for pocket in into:
        counting.refresh(book, pocket, now)
    try:
        return against_sql("thandi", f"/api/portfolios/{book.pk}", b'"pockets"')
    finally:
        Evidence.objects.filter(pk__in=[one.pk for one in evidence]).delete()
        Artefact.objects.filter(pk__in=[one.pk for one in made]).delete()
        PocketContent.objects.filter(portfolio=book).delete()
        PocketContent.objects.bulk_create(before)


def thumbnails() -> dict[str, float]:
    """The thumbnails of photographs against Pillow alone, from the same decoded pictures."""
    import io  # noqa: PLC0415

    from PIL import Image  # noqa: PLC0415

    from coatpeg.files import pictures  # noqa: PLC0415

    noise = Image.effect_noise((4000, 3000), 60).convert("RGB")
    photographs = [noise.rotate(turn, expand=True) for turn in (0, 90)]

    def ours() -> None:
        for one in photographs:
            for _, small in pictures.thumbnails(one):
                small.save(io.BytesIO(), "JPEG", quality=pictures.JPEG_QUALITY)

    def alone() -> None:
        for one in photographs:
            for side in pictures.THUMBNAILS.values():
                small = one.copy()
                small.thumbnail((side, side), Image.Resampling.LANCZOS)
                small.save(io.BytesIO(), "JPEG", quality=pictures.JPEG_QUALITY)

    mine, theirs = side_by_side(ours, alone, 8)
    return {"ours": mine / len(photographs), "alone": theirs / len(photographs), "ratio": mine / theirs}


SAVERS = 60


def savers() -> list[dict[str, Any]]:
    """Students with a session, a loose page to save and a pocket that takes files: what the load is measured with."""
    from importlib import import_module as module  # noqa: PLC0415

    from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY  # noqa: PLC0415
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.outlines.models import Pocket  # noqa: PLC0415
    from coatpeg.people.models import Person, StaffRole  # noqa: PLC0415
    from coatpeg.portfolios.models import Portfolio  # noqa: PLC0415
    from coatpeg.portfolios.own import pages  # noqa: PLC0415

    store = module(settings.SESSION_ENGINE).SessionStore

    def signed_in(person: Person) -> str:
        session = store()
        session[SESSION_KEY] = str(person.pk)
        session[BACKEND_SESSION_KEY] = "django.contrib.auth.backends.ModelBackend"
        session[HASH_SESSION_KEY] = person.get_session_auth_hash()
        session.save()
        return str(session.session_key)

    now = timezone.now()
    found: list[dict[str, Any]] = []
    books = Portfolio.objects.filter(enrolment__last=None, enrolment__group__kind__in=("class", "cohort")).order_by(
        "pk"
    )
    for book in books.select_related("enrolment__person")[:SAVERS]:
        person = book.enrolment.person
        pocket = Pocket.objects.filter(section__template__group_id=book.enrolment.group_id, title="Menu").first()
        page = pages.add_page(person, book.pk, "Beans", now)
        found.append(
            {
                "cookie": signed_in(person),
                "portfolio": book.pk,
                "pocket": pocket.pk if pocket else 0,
                "page": page.pk,
                "group": book.enrolment.group_id,
            }
        )
    lead = StaffRole.objects.filter(group=found[0]["group"], role="lead").select_related("person")[0].person
    found[0]["lead"] = signed_in(lead)
    return found


def forget(kept: list[dict[str, Any]]) -> None:
    """Take away what the load was measured with."""
    from django.contrib.sessions.models import Session  # noqa: PLC0415 - needs settings
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.files import keeping  # noqa: PLC0415
    from coatpeg.files.models import StoredFile, Upload  # noqa: PLC0415
    from coatpeg.portfolios import counting  # noqa: PLC0415
    from coatpeg.portfolios.models import Artefact, Evidence, LoosePage, Portfolio  # noqa: PLC0415

    Session.objects.filter(pk__in=[one[of] for one in kept for of in ("cookie", "lead") if of in one]).delete()
    LoosePage.objects.filter(pk__in=[one["page"] for one in kept]).delete()
    large = Artefact.objects.filter(title="large.bin").select_related("stored")
    stored = {one.stored_id: one.stored for one in large}
    lying = Evidence.objects.filter(artefact__in=large).select_related("pocket", "portfolio")
    places = [(one.portfolio, one.pocket) for one in lying]
    Upload.objects.filter(name="large.bin").delete()
    lying.delete()
    large.delete()
    for one in stored.values():
        if one is not None:
            keeping.store().delete(keeping.path_of(one.sha256))
    StoredFile.objects.filter(pk__in=[one.pk for one in stored.values() if one]).delete()
    for book, pocket in places:
        counting.refresh(Portfolio.objects.get(pk=book.pk), pocket, timezone.now())


def engine() -> dict[str, Any]:
    """The status engine against a bare loop that builds the same number of result tuples."""
    from coatpeg.core.calendar.school_days import SchoolCalendar, Term  # noqa: PLC0415
    from coatpeg.core.handins.standing import Facts, Standing, Status, judge_column  # noqa: PLC0415

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

    from coatpeg.core.people.roster_table import guess, read_text  # noqa: PLC0415
    from coatpeg.core.policy import Role  # noqa: PLC0415
    from coatpeg.people.models import Person, StaffRole, TeachingGroup  # noqa: PLC0415
    from coatpeg.setup.roster.class_lists import ClassList, preview  # noqa: PLC0415
    from coatpeg.setup.roster.enrolling import apply_list  # noqa: PLC0415

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
    """Measure and print; with ``savers`` or ``forget`` prepare the load, or clear up after it."""
    import_module("coatpeg.web.wsgi")  # as it is served
    settings.ALLOWED_HOSTS.append("testserver")
    if sys.argv[1:] == ["savers"]:
        print(json.dumps(savers()))
    elif sys.argv[1:] == ["wide"]:
        print(wide())
    elif sys.argv[1:] == ["narrow"]:
        narrow(int(sys.stdin.read()))
    elif sys.argv[1:] == ["together"]:
        print(measuring_shared.page_for(int(sys.stdin.read())))
    elif sys.argv[1:] == ["forget"]:
        forget(json.load(sys.stdin))
        measuring_shared.taken_away()
    else:
        found = {"board": board(), "pockets": pockets(), "engine": engine(), "year_group": year_group()}
        found |= {"poll": poll(), "change": one_change(), "large": large()}
        found |= {"pile": measuring_marking.pile(), "copy": measuring_marking.marked_copy()}
        found |= {"released": measuring_marking.released()}
        found |= {"many": measuring_many.acted()}
        found["classes"] = {"seconds": measuring_many.first_page()}
        found |= {"given": measuring_cupboard.given_out(), "opened": measuring_shared.opened()}
        print(json.dumps({**found, "thumbnails": thumbnails()}))


if __name__ == "__main__":
    main()
