"""A series over the units of a section that repeats: the same pockets of each unit from the chosen one on.

Decided here: the unit is the one whose pockets are chosen; pockets beside it are collected every time. Each hand-in
opens with its unit and is due as many school days after that as the first one is; what does not fall on a school day
for the first does not move for the others either. A unit in which nothing of it is laid out has none.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from datetime import date

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Invalid
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.series import MOST, Occurrence
from coatpeg.handins.asked.setting import Plan
from coatpeg.outlines.models import Pocket, Unit
from coatpeg.outlines.reading import pockets_of


def of_units(group_id: int, plan: Plan, calendar: SchoolCalendar) -> Iterator[tuple[Occurrence, Plan]]:
    """The hand-ins over the units, in their order; ``Invalid`` where no unit, or more than one, is chosen."""
    chosen = list(pockets_of(group_id).filter(pk__in=plan.pockets).select_related("section__unit"))
    units = {one.section.unit for one in chosen if one.section.unit is not None}
    if len(units) != 1:
        raise Invalid(
            "Pockets of more than one unit are chosen." if units else "No pocket of a unit is chosen.",
            where="pockets",
            fix="Choose the pockets of the first unit: those of the later ones follow by themselves.",
        )
    first = units.pop()
    following = list(Unit.objects.filter(pattern=first.pattern_id))
    following = following[[one.pk for one in following].index(first.pk) :]
    begun = _begun(following)
    if len(following) > MOST:
        raise Invalid(f"There are {len(following)} units; {MOST} hand-ins are the most.", where="pockets", fix="")
    inside = [one for one in chosen if one.section.unit == first]
    beside = tuple(one.pk for one in chosen if one not in inside)
    number = 0
    for unit, opens in zip(following, begun, strict=True):
        pockets = tuple(plan.pockets) if unit == first else (*_like(unit, inside), *beside)
        if not set(pockets) - set(beside):
            continue
        number += 1
        made = _moved(plan, begun[0], opens, calendar) if unit != first else plan
        made = replace(made, title=f"{plan.title.strip()} {number}", pockets=pockets)
        assert made.due is not None
        yield Occurrence(number, 0, made.due.day, False), made


def _begun(units: Sequence[Unit]) -> list[date]:
    undated = [one.title for one in units if one.opens is None]
    if undated:
        raise Invalid(
            f"No day is given on which these units open: {', '.join(undated)}.",
            where="pockets",
            fix="Give every unit its day in the template; then each hand-in has one too.",
        )
    return [one.opens for one in units if one.opens]


def _like(unit: Unit, of: Sequence[Pocket]) -> list[int]:
    """The pockets of a unit that were laid out from the same ones of the pattern."""
    same = Pocket.objects.filter(section__unit=unit, retired_at=None, pattern__in=[one.pattern_id for one in of])
    return list(same.values_list("pk", flat=True))


def _moved(plan: Plan, first: date, opens: date, calendar: SchoolCalendar) -> Plan:
    """A plan for a unit that opens on another day."""

    def day(was: date) -> date:
        return calendar.after(opens, calendar.between(first, was))

    def due(was: Due | None) -> Due | None:
        return Due(day(was.day), was.at) if was else None

    dues = {period: Due(day(one.day), one.at) for period, one in plan.period_dues.items()}
    closes = due(plan.closes)
    made = replace(plan, due=due(plan.due), period_dues=dues, closes=closes)
    return replace(made, opens=min(opens, *made.days))
