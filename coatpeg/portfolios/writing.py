"""Writing into a portfolio: its row locked, the policy asked, what is closed refused.

Nobody but the student writes here.
Every command on a student's work begins with ``writing`` (one pocket) or ``own.arranging`` (what is theirs alone).
What many fill together is laid out by a room above, which says here what it does (``when_together``).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from coatpeg.core.errors import Gone, Refused
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_for_student
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios import holds
from coatpeg.portfolios.finding import no_portfolio
from coatpeg.portfolios.models import Evidence, LogRow, Portfolio

RESTORABLE = timedelta(days=30)
"""How long what was taken out can be brought back."""


@dataclass(frozen=True, slots=True)
class Place:
    """A pocket of a portfolio, locked for writing within a deed."""

    portfolio: Portfolio
    pocket: Pocket
    doing: Deed

    @property
    def group_id(self) -> int:
        """The teaching group the portfolio is in."""
        return self.portfolio.enrolment.group_id

    def record(self, verb: str, **data: Any) -> None:
        """Record an event of this student about this pocket."""
        self.doing.record(verb, self.group_id, enrolment_id=self.portfolio.enrolment_id, pocket=self.pocket.pk, **data)


def locked_portfolio(portfolio_id: int) -> Portfolio:
    """The portfolio with its row locked: the first step of every write to a student's work."""
    # MariaDB has no FOR UPDATE OF: lock the one row first, then read it with what hangs on it.
    Portfolio.objects.select_for_update().filter(pk=portfolio_id).values_list("pk").first()
    found = Portfolio.objects.select_related("enrolment__group", "enrolment__person").filter(pk=portfolio_id).first()
    if found is None:
        raise no_portfolio()
    return found


def locked_of(*enrolments: int) -> dict[int, Portfolio]:
    """The portfolios of some places in classes, by enrolment, locked in the order in which everybody locks them."""
    ids = Portfolio.objects.filter(enrolment__in=enrolments).order_by("pk").values_list("pk", flat=True)
    return {one.enrolment_id: one for one in [locked_portfolio(pk) for pk in list(ids)]}


def lock_portfolios(group_id: int) -> None:
    """Lock all portfolios of a class: nobody writes into one, or hands in, until the deed is done."""
    ids = list(Portfolio.objects.filter(enrolment__group_id=group_id).values_list("pk", flat=True))
    list(Portfolio.objects.select_for_update().filter(pk__in=ids).order_by("pk").values_list("pk"))


@contextmanager
def writing(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> Iterator[Place]:
    """A deed on one pocket, after every check that does not depend on what is written.

    A log is not locked as a whole: only the rows that were handed in are (``portfolios.logs.rows``).
    """
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
        pocket = pockets_of(portfolio.enrolment.group_id).filter(pk=pocket_id).first()
        if pocket is None:
            raise Gone("There is no such pocket in this portfolio.", fix="Go back to your pockets.")
        refuse_closed(portfolio, pocket, now)
        if pocket.kind != PocketKind.LOG:
            holds.refuse_if_held(portfolio, pocket)
        refuse_page_together(pocket)
        place = Place(portfolio, pocket, doing)
        with filling_together(place):
            yield place


@dataclass(slots=True)
class _Together:
    """What is done before and after a write into a pocket that many fill."""

    before: Callable[[Place], None] | None = None
    after: Callable[[Place], None] | None = None


_TOGETHER = _Together()


def when_together(before: Callable[[Place], None], after: Callable[[Place], None]) -> None:
    """Say what is done before a write into a pocket that many fill (it may refuse), and after it, in the same deed."""
    _TOGETHER.before, _TOGETHER.after = before, after


@contextmanager
def filling_together(place: Place) -> Iterator[None]:
    """What a write into a pocket that many fill is surrounded by; nothing where it is one student's own."""
    if place.pocket.shared and _TOGETHER.before:
        _TOGETHER.before(place)
    yield
    if place.pocket.shared and _TOGETHER.after:
        _TOGETHER.after(place)


def refuse_page_together(pocket: Pocket) -> None:
    """A page that is filled together is written where everybody writes, not in one portfolio."""
    if pocket.shared and pocket.kind == PocketKind.PAGE:
        raise Refused(
            f"“{pocket.title}” is filled together.", where=pocket.title, fix="Open it and write on the page itself."
        )


def refuse_theirs(one: Evidence | LogRow) -> None:
    """What somebody else put into a pocket that many fill is changed, and taken out, by them alone."""
    if one.of_id is not None:
        raise Refused(
            "Somebody else put this in: only they change it or take it out.",
            where="the pocket that you fill together",
            fix="Ask them, or put in one of your own.",
        )


def refuse_left(portfolio: Portfolio, now: datetime) -> None:
    """Whoever has left reads and no longer writes."""
    left = portfolio.enrolment.last
    if left is not None and left < school_calendar().local_day(now):
        raise Refused(f"You left this class on {left:%a %-d %b}.", fix="You can still read everything in it.")


def refuse_closed(portfolio: Portfolio, pocket: Pocket, now: datetime) -> None:
    """A pocket that is no longer in use, not open yet, or of somebody who has left."""
    refuse_left(portfolio, now)
    today = school_calendar().local_day(now)
    if pocket.retired_at is not None:
        raise Refused(f"“{pocket.title}” is no longer in use.", where=pocket.title, fix="You can still read it.")
    if pocket.opens and pocket.opens > today:
        raise Refused(f"“{pocket.title}” opens on {pocket.opens:%a %-d %b}.", where=pocket.title, fix="Come back then.")


def refuse_long_gone(removed_at: datetime | None, now: datetime) -> None:
    """What was taken out longer ago than it can be brought back."""
    if removed_at is not None and now - removed_at > RESTORABLE:
        raise Gone(
            f"This was taken out on {removed_at:%a %-d %b}, more than {RESTORABLE.days} days ago.",
            fix="Add it once more.",
        )
