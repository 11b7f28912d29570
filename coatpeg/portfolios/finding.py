"""Finding a portfolio by its number, for somebody who may do something with it; and who may see an artefact."""

from __future__ import annotations

from django.db.models import Q

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action, decide
from coatpeg.core.portfolios.log_columns import log_from_data
from coatpeg.events.prepared import Found
from coatpeg.people.access import require_for_student, to_student
from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.models import Artefact, Evidence, LogRow, Portfolio

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


def require_for_artefact(person: Person, artefact: Artefact) -> None:
    """Refuse who sees it neither in its student's portfolio nor where it lies with others who fill a pocket."""
    of = artefact.portfolio.enrolment
    if decide(Action.SEE_PORTFOLIO, to_student(person, of)).allowed or _lies_with(person, artefact):
        return
    require_for_student(person, Action.SEE_PORTFOLIO, of)


def _lies_with(person: Person, artefact: Artefact) -> bool:
    """Whether it lies, put in by its student, in another portfolio of the class that somebody may see, or was handed in
    with it.
    """
    lying = Q(of__portfolio=artefact.portfolio_id) & (Q(removed_at=None) | Q(of_handed_in=True))
    if not person.is_staff:
        lying &= Q(portfolio__enrolment__person=person)
    evidence = Evidence.objects.filter(lying, Q(artefact=artefact) | Q(spoken=artefact))
    there = set(evidence.values_list("portfolio", flat=True))
    for row in LogRow.objects.filter(lying).select_related("pocket"):
        keys = log_from_data(row.pocket.log).artefact_keys
        if any(row.values.get(key) == artefact.pk for key in keys):
            there.add(row.portfolio_id)
    those = Enrolment.objects.filter(portfolio__in=there).select_related("group", "person")
    return any(decide(Action.SEE_PORTFOLIO, to_student(person, one)).allowed for one in those)
