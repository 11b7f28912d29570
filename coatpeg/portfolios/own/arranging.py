"""A student's own part of their portfolio, beside the wanted pockets: its cover and loose pages.

Nothing here is ever wanted, counted or handed in, so no hold locks it; the wanted pockets stand as the template has
them. Decided here: whoever has left can read it and no longer change it, as with everything else of theirs.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.events.recording import Deed, deed
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.writing import locked_portfolio, refuse_left

LONGEST_TITLE = 120


@contextmanager
def arranging(person: Person, portfolio_id: int, now: datetime) -> Iterator[tuple[Portfolio, Deed]]:
    """A deed on one's own portfolio, its row locked."""
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        require_for_student(person, Action.ARRANGE_PORTFOLIO, portfolio.enrolment)
        refuse_left(portfolio, now)
        yield portfolio, doing


def record(doing: Deed, portfolio: Portfolio, verb: str, **data: Any) -> None:
    """Record an event of this student."""
    doing.record(verb, portfolio.enrolment.group_id, enrolment_id=portfolio.enrolment_id, **data)


def tidy_title(title: str, *, may_be_empty: bool = False) -> str:
    """A title as it is kept."""
    tidy = " ".join(tidy_text(title).split())
    if len(tidy) > LONGEST_TITLE or not (tidy or may_be_empty):
        raise Invalid(
            f"The title has {len(tidy)} characters." if tidy else "The page has no title.",
            where="title",
            fix=f"Give it a title of at most {LONGEST_TITLE} characters.",
        )
    return tidy
