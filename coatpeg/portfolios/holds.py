"""Standing holds: the rows behind the core's locking rules. Call these with the portfolio row locked."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime

from coatpeg.core.handins.locking import STAFF, Hold, HoldHappening, after, refuse_if_locked
from coatpeg.core.outlines.filling import Wanted
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import wanted_as_data
from coatpeg.portfolios.models import Portfolio, StandingHold


def standing(portfolio: Portfolio) -> frozenset[Hold]:
    """All holds of a portfolio, as the core takes them."""
    rows = StandingHold.objects.filter(portfolio=portfolio).values_list("pocket_id", "handin_id")
    return frozenset(Hold(*row) for row in rows)


def refuse_if_held(portfolio: Portfolio, pocket: Pocket) -> None:
    """Raise ``Refused`` where a pocket is locked, naming the hand-ins that hold it, or that staff do."""
    held = dict(StandingHold.objects.filter(portfolio=portfolio, pocket=pocket).values_list("handin_id", "title"))
    by_staff = held.pop(STAFF, None) is not None
    refuse_if_locked(pocket.title, held.values(), by_staff=by_staff)


def is_held(portfolio: Portfolio, pocket: Pocket) -> bool:
    """Whether any hand-in locks a pocket."""
    return StandingHold.objects.filter(portfolio=portfolio, pocket=pocket).exists()


def apply(
    portfolio: Portfolio, happening: HoldHappening, title: str, wanted: Mapping[int, Wanted], now: datetime
) -> list[str]:
    """Write what a happening does to the holds; returns the titles of other hand-ins whose holds it released.

    ``wanted`` is what is wanted of this student in the hand-in's pockets now: it is frozen with a hold.
    """
    before = standing(portfolio)
    then = after(before, happening)
    StandingHold.objects.bulk_create(
        StandingHold(
            portfolio=portfolio,
            pocket_id=hold.pocket,
            handin_id=hold.handin,
            title=title,
            wanted=wanted_as_data(wanted[hold.pocket]),
            since=now,
        )
        for hold in sorted(then - before)
    )
    released = before - then
    others: set[str] = set()
    for hold in sorted(released):
        row = StandingHold.objects.get(portfolio=portfolio, pocket_id=hold.pocket, handin_id=hold.handin)
        if hold.handin != happening.handin:
            others.add(row.title)
        row.delete()
    return sorted(others)
