"""The bell: what is new to a person, newest first.

Decided here: notices of the last thirty days, at most fifty lines; what several people did alike about the same thing
on the same day (twelve submissions of one hand-in) is one line with their number. What was seen is seen on every
device.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any

from django.db.models import QuerySet

from coatpeg.notices.addressees import directory
from coatpeg.notices.kinds import Line, kind_of
from coatpeg.notices.models import Delivery

SHOWN_FOR = timedelta(days=30)
MOST = 50
MOST_READ = 150
"""Deliveries read for the lines: several become one."""


@dataclass(frozen=True, slots=True)
class NewsLine:
    """One line: the newest notice of those it stands for, how many they are, and whether one of them is new."""

    newest: int
    what: str
    at: datetime
    group_id: int | None
    line: Line
    count: int
    new: bool


def lines_of(person_id: int, deliveries: Iterable[Delivery]) -> list[NewsLine]:
    """Deliveries (with their notices, newest first) as lines. A fixed number of queries for each kind."""
    rows = list(deliveries)
    by_kind: dict[str, list[Delivery]] = defaultdict(list)
    for one in rows:
        by_kind[one.notice.what].append(one)
    described: dict[int, Line] = {}
    for what, of in by_kind.items():
        if kind := kind_of(what):
            described |= kind.describe([one.notice for one in of], person_id)
    zone = directory().zone()
    together: dict[tuple[str, str, str, date], list[Delivery]] = defaultdict(list)
    for one in rows:
        if line := described.get(one.notice_id):
            day = one.notice.tell_at.astimezone(zone).date()
            kind = kind_of(one.notice.what)
            alone = "" if kind and kind.several else str(one.notice_id)
            together[one.notice.what + alone, line.title, line.path, day].append(one)
    return [
        NewsLine(
            of[0].notice_id,
            of[0].notice.what,
            of[0].notice.tell_at,
            of[0].notice.group_id,
            described[of[0].notice_id],
            len(of),
            any(one.seen_at is None for one in of),
        )
        for of in together.values()
    ]


def bell(person_id: int, now: datetime, *, only_in: int | None = None) -> dict[str, Any]:
    """What is new to a person (in one class only), and how many lines they have not seen."""
    mine = _mine(person_id, only_in).filter(notice__tell_at__gt=now - SHOWN_FOR)
    rows = mine.select_related("notice").order_by("-notice__tell_at", "-notice_id")[:MOST_READ]
    shown = lines_of(person_id, rows)[:MOST]
    return {
        "unseen": sum(one.new for one in shown),
        "lines": [
            {
                "id": one.newest,
                "what": one.what,
                "at": one.at,
                "title": one.line.title,
                "path": one.line.path,
                "count": one.count,
                "new": one.new,
            }
            for one in shown
        ],
    }


def seen(person_id: int, newest: int, now: datetime, *, only_in: int | None = None) -> None:
    """The person has seen their notices (of one class only) up to one."""
    _mine(person_id, only_in).filter(notice_id__lte=newest, seen_at=None).update(seen_at=now)


def _mine(person_id: int, only_in: int | None) -> QuerySet[Delivery]:
    mine = Delivery.objects.filter(person_id=person_id)
    return mine if only_in is None else mine.filter(notice__group_id=only_in)
