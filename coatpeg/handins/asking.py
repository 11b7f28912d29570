"""Hand-ins as the rules take them: what is asked, whose due moment is when."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, time
from decimal import Decimal

from coatpeg.core.asking import Asked, Due, EffectiveDue, Student, effective_due, is_asked
from coatpeg.core.calendar import SchoolCalendar
from coatpeg.handins.models import HandIn, HandInPeriod, OwnDue


@dataclass(frozen=True, slots=True)
class Answer:
    """Whether one student is asked for a hand-in, and their due."""

    asked: bool
    due: EffectiveDue


class AskedHandIn:
    """A hand-in with everything that decides who is asked and when it is due for them.

    Students in the same situation (span, periods, adjustments) share one answer.
    """

    def __init__(self, row: HandIn, asked: Asked, pockets: tuple[int, ...], own: Mapping[int, Due]) -> None:
        self.id = row.pk
        self.title = row.title
        self.points: Decimal | None = row.points
        self.step: Decimal = row.step
        self.for_everyone = row.for_everyone
        self.asked = asked
        self.pockets = pockets
        self.own = own
        self._answers: dict[tuple[Student | int, Due | None], Answer] = {}

    def opening(self, calendar: SchoolCalendar) -> datetime:
        """The UTC moment at which it opens: the beginning of its local day."""
        return datetime.combine(self.asked.opens, time(0), tzinfo=calendar.zoneinfo).astimezone(UTC)

    def answer(self, enrolment_id: int, student: Student, calendar: SchoolCalendar, kind: int | None = None) -> Answer:
        """Whether this student is asked, and their due. Equal students may be given the same ``kind``, to be quick."""
        own = self.own.get(enrolment_id)
        key = (student if kind is None else kind, own)
        found = self._answers.get(key)
        if found is None:
            due = effective_due(self.asked, student, own, calendar)
            found = self._answers[key] = Answer(is_asked(self.asked, student, due), due)
        return found

    @property
    def order(self) -> tuple[date, str, int]:
        """Hand-ins stand in due order; those without a due moment last."""
        return self.asked.earliest or date.max, self.title, self.id


def asked_of(row: HandIn, periods: list[HandInPeriod]) -> Asked:
    """What a hand-in's rows ask, as the core takes it."""
    dues = {one.period_id: Due(one.due_day, one.due_time) for one in periods if one.due_day}
    audience = None if row.for_everyone else frozenset(one.period_id for one in periods if one.asked)
    return Asked(row.opens, Due(row.due_day, row.due_time) if row.due_day else None, dues or None, audience)


def handins_of_group(group_id: int, handin_id: int | None = None) -> list[AskedHandIn]:
    """A group's hand-ins (or one of them) in due order: four queries."""
    rows = HandIn.objects.filter(group_id=group_id)
    if handin_id is not None:
        rows = rows.filter(pk=handin_id)
    periods: dict[int, list[HandInPeriod]] = defaultdict(list)
    for one in HandInPeriod.objects.filter(handin__group_id=group_id):
        periods[one.handin_id].append(one)
    pockets: dict[int, list[int]] = defaultdict(list)
    links = HandIn.pockets.through.objects.filter(handin__group_id=group_id).order_by("pocket_id")
    for handin, pocket in links.values_list("handin_id", "pocket_id"):
        pockets[handin].append(pocket)
    own: dict[int, dict[int, Due]] = defaultdict(dict)
    for handin, enrolment, day, at in OwnDue.objects.filter(handin__group_id=group_id).values_list(
        "handin_id", "enrolment_id", "day", "at"
    ):
        own[handin][enrolment] = Due(day, at)
    found = [AskedHandIn(row, asked_of(row, periods[row.pk]), tuple(pockets[row.pk]), own[row.pk]) for row in rows]
    return sorted(found, key=lambda one: one.order)
