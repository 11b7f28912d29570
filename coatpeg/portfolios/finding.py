"""Finding a portfolio by its number, for somebody who may do something with it."""

from __future__ import annotations

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.events.prepared import Found
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Portfolio

_PORTFOLIO = Found(Portfolio, "enrolment", "enrolment__person", "enrolment__group")


def no_portfolio() -> Gone:
    """What is said where there is none."""
    return Gone("There is no such portfolio.", fix="Go back to your pockets.")


def portfolio_for(person: Person, portfolio_id: int, action: Action) -> Portfolio:
    """The portfolio, with its enrolment, class and student loaded; else ``Gone`` or ``Refused``."""
    found = _PORTFOLIO.get(portfolio_id)
    if found is None:
        raise no_portfolio()
    require_for_student(person, action, found.enrolment)
    return found
