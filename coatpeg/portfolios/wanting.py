"""What is wanted of a student in a pocket: the template's, what held when it was locked, their adjustments honoured."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping, Sequence
from datetime import date
from functools import lru_cache

import orjson
from django.db.models import ExpressionWrapper, F, TextField

from coatpeg.core.calendar.school_days import Week
from coatpeg.core.outlines.adjusting import WantedChange, adjusted
from coatpeg.core.outlines.filling import PocketKind, PocketState, Wanted, weekly
from coatpeg.events.prepared import OfGroup
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import PocketOutline, wanted_from_data, wanted_of
from coatpeg.people.calendars import class_weeks, school_calendar
from coatpeg.people.rosters import Member, wants_of
from coatpeg.portfolios.counting import NO_CONTENT, Content
from coatpeg.portfolios.models import Portfolio, StandingHold

_HOLDS = OfGroup(
    StandingHold.objects.annotate(raw=ExpressionWrapper(F("wanted"), TextField()))
    .order_by("-since")
    .values_list("portfolio__enrolment_id", "pocket_id", "raw"),
    "portfolio__enrolment__group_id",
    "portfolio__enrolment_id",
)


def frozen_wants(group_id: int, enrolments: Collection[int] | None = None) -> dict[tuple[int, int], Wanted]:
    """What was wanted of locked pockets when they were locked, by (enrolment, pocket): one query.

    Of several holds the earliest decides. A log is not among them: only its rows are locked, new ones stay possible,
    so it is judged by what is wanted now.
    """
    rows = _HOLDS.run(group_id, enrolments)
    found = ((enrolment, pocket, _wanted_from_text(wanted)) for enrolment, pocket, wanted in rows)
    return {(enrolment, pocket): wanted for enrolment, pocket, wanted in found if wanted.kind is not PocketKind.LOG}


@lru_cache(maxsize=1000)
def _wanted_from_text(text: str) -> Wanted:
    """A year group's holds name few different wants: each is read once."""
    return wanted_from_data(orjson.loads(text))


def wanted_now(portfolio: Portfolio, pockets: Iterable[Pocket], today: date) -> dict[int, Wanted]:
    """What is wanted of this student in some pockets on a day, by pocket: their adjustments honoured."""
    changes = wants_of(portfolio.enrolment.person_id)
    pockets = list(pockets)
    each_week = any(pocket.rows_per_week for pocket in pockets)
    weeks = class_weeks(portfolio.enrolment.group_id, school_calendar()) if each_week else ()
    first = portfolio.enrolment.first
    return {
        pocket.pk: asked_of(wanted_of(pocket), pocket.opens, first, changes, weeks, today, today) for pocket in pockets
    }


def asked_of(
    wanted: Wanted,
    opens: date | None,
    first: date,
    changes: Iterable[WantedChange],
    weeks: Sequence[Week],
    today: date,
    until: date | None,
) -> Wanted:
    """What is wanted of one student in a pocket that opens on a day: adjusted for today, weekly rows up to ``until``.

    ``first`` is the day the student joined, ``weeks`` those of the class's time (needed for weekly rows only).
    """
    if wanted.rows_per_week:
        wanted = weekly(wanted, weeks, max(first, opens) if opens else first, until)
    return adjusted(wanted, changes, today) if changes else wanted


def states(
    outline: Iterable[PocketOutline],
    contents: Mapping[tuple[int, int], Content],
    frozen: Mapping[tuple[int, int], Wanted],
    member: Member,
    today: date,
    weeks: Sequence[Week],
) -> list[PocketState]:
    """One student's pockets as the filling rules take them; the mappings are by (enrolment, pocket)."""
    enrolment_id, changes, first = member.enrolment_id, member.student.wants, member.student.enrolled.first
    return [
        PocketState(
            asked_of(pocket.wanted, pocket.opens, first, changes, weeks, today, today),
            contents.get((enrolment_id, pocket.id), NO_CONTENT).pieces,
            frozen.get((enrolment_id, pocket.id)),
            pocket.counts,
            pocket.retired,
            pocket.open_on(today),
            asked_of(pocket.wanted, pocket.opens, first, changes, weeks, today, None)
            if pocket.wanted.rows_per_week
            else None,
        )
        for pocket in outline
    ]
