"""What every exchange reads of a page, by queries that are compiled once: thirty who write ask fifty times a second."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any, NamedTuple

import orjson
from django.db import connection
from django.db.models.functions import Coalesce

from coatpeg.core.errors import Gone
from coatpeg.events.moments import quick
from coatpeg.events.prepared import Prepared
from coatpeg.people.models import GroupMember, PeriodMembership
from coatpeg.portfolios.models import StandingHold
from coatpeg.sharing.models import SharedPage, SharedUpdate


class PageRow(NamedTuple):
    """A page as an exchange needs it."""

    pk: int
    number: int
    changed_at: datetime
    closed_at: datetime | None
    question: str
    asked_at: datetime | None
    dropped: int
    of: str
    group_id: int
    period_id: int | None
    working_group_id: int | None
    pocket_id: int | None
    title: str
    opens: date | None
    retired_at: datetime | None


class Locked(NamedTuple):
    """What an update changes of a page, its row locked."""

    number: int
    closed_at: datetime | None
    settling: bool
    clocks: dict[str, int]
    owners: dict[str, int]
    since_moment: dict[str, list[int]]
    size: int
    kinds: dict[str, Any]


_PAGE = Prepared(
    lambda pk: SharedPage.objects.filter(pk=pk).values_list(
        "pk",
        "number",
        "changed_at",
        "closed_at",
        "question",
        "asked_at",
        "dropped",
        "of",
        "group_id",
        "period_id",
        "working_group_id",
        "pocket_id",
        Coalesce("pocket__title", "title"),
        "pocket__opens",
        "pocket__retired_at",
    )
)
_LOCKED = Prepared(
    lambda pk: (
        SharedPage.objects.select_for_update()
        .filter(pk=pk)
        .values_list("number", "closed_at", "settling", "clocks", "owners", "since_moment", "size", "kinds")
    )
)
_UPDATES = Prepared(
    lambda pk, after, upto: (
        SharedUpdate.objects.filter(page_id=pk, number__gt=after, number__lte=upto)
        .order_by("number")
        .values_list("data", "client", "start", "end", "person_id", quick("at"))
    )
)
_HOLDS = Prepared(
    lambda pocket, group: (
        StandingHold.objects.filter(pocket_id=pocket, portfolio__enrolment__group_id=group)
        .order_by("since")
        .values_list("handin_id", "title", "portfolio__enrolment_id")
    )
)
_IN_PERIOD = Prepared(
    lambda enrolment, period: PeriodMembership.objects.filter(enrolment_id=enrolment, period_id=period).values_list(
        "first", "last"
    )
)
_CHOSEN = Prepared(
    lambda enrolment, page: SharedPage.chosen.through.objects.filter(
        enrolment_id=enrolment, sharedpage_id=page
    ).values_list("pk")
)
_IN_GROUP = Prepared(
    lambda enrolment, group: GroupMember.objects.filter(enrolment_id=enrolment, workinggroup_id=group).values_list("pk")
)


def page_row(page_id: int) -> PageRow:
    """A page as an exchange needs it; else ``Gone``."""
    found = _PAGE.run(page_id)
    if not found:
        raise Gone("There is no such page.", fix="Go back to the pockets.")
    return PageRow(*found[0])


def lock(page_id: int) -> Locked:
    """What an update changes, with the row locked. Call within a transaction."""
    found = _LOCKED.run(page_id)
    if not found:
        raise Gone("There is no such page.", fix="Go back to the pockets.")
    return Locked(*found[0])


def updates_between(page_id: int, after: int, upto: int) -> list[tuple[Any, ...]]:
    """The updates after a number, up to one: data, writer id, ticks from–to, person, time."""
    return _UPDATES.run(page_id, after, upto)


def holds_on(pocket_id: int | None, group_id: int) -> list[tuple[int, str, int]]:
    """The holds on a pocket in a class, oldest first: hand-in (0: staff's own), title, enrolment."""
    return _HOLDS.run(pocket_id, group_id) if pocket_id is not None else []


def fills(page: PageRow, enrolment: int, today: date) -> bool:
    """Whether a student who is in the class today fills a page."""
    if page.of.startswith("period:"):
        spans = _IN_PERIOD.run(enrolment, page.period_id) if page.period_id else []
        return any(first <= today and (last is None or today <= last) for first, last in spans)
    if page.of.startswith("group:"):
        return bool(page.working_group_id and _IN_GROUP.run(enrolment, page.working_group_id))
    if page.of.startswith("own:"):
        return bool(_CHOSEN.run(enrolment, page.pk))
    return True


_INSERT = (
    f"INSERT INTO {SharedUpdate._meta.db_table} (page_id, number, client, `start`, `end`, person_id, `at`, data)"
    " VALUES (%s, %s, %s, %s, %s, %s, %s, %s)"
)
_UPDATE = (
    f"UPDATE {SharedPage._meta.db_table} SET number = %s, clocks = %s, owners = %s, since_moment = %s, kinds = %s,"
    " changed_at = %s, settling = 1 WHERE id = %s"
)


def write(
    page_id: int, locked: Locked, client: int, ticks: tuple[int, int], person: int, data: bytes, now: datetime
) -> int:
    """Put an update to a locked page, whose counts are changed already; returns its number."""
    number = locked.number + 1
    at = connection.ops.adapt_datetimefield_value(now)
    with connection.cursor() as cursor:
        cursor.execute(_INSERT, [page_id, number, client, *ticks, person, at, data])
        json = [orjson.dumps(one).decode() for one in (locked.clocks, locked.owners, locked.since_moment, locked.kinds)]
        cursor.execute(_UPDATE, [number, *json, at, page_id])
    return number
