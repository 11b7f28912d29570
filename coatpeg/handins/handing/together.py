"""Handing in what is filled together: one press is for all who fill it, each with a receipt and a date of their own.

Decided here: it is so where every pocket that a hand-in collects is filled by the same ones; where a pocket of a
student's own is among them, each hands in for themselves. Of the others those are handed in for of whom it is asked,
who are not excused and have nothing standing; it counts by each one's own due moment.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import CoatPegError
from coatpeg.core.outlines.filling import Shared
from coatpeg.events.recording import Deed
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.writing import locked_portfolio
from coatpeg.sharing import finding, settling
from coatpeg.sharing.models import SharedPage


def shared_by(pockets: list[Pocket]) -> Shared:
    """Who fills all of some pockets together; nobody where one of them is filled by others, or by one alone."""
    kinds = {(one.shared, one.group_set) for one in pockets}
    return Shared(kinds.pop()[0]) if len(kinds) == 1 else Shared.NOBODY


def pages_for(handin_id: int, portfolio_id: int, now: datetime) -> list[SharedPage]:
    """The pages that a student hands in with others; none where they hand in alone."""
    pockets = list(Pocket.objects.filter(handins=handin_id))
    if shared_by(pockets) is Shared.NOBODY:
        return []
    portfolio = Portfolio.objects.filter(pk=portfolio_id).select_related("enrolment").first()
    if portfolio is None:
        return []
    try:
        return [finding.page_of(one, portfolio.enrolment, now) for one in pockets]
    except CoatPegError:  # in no group or period: alone
        return []


def lock_all(doing: Deed, handin_id: int, portfolio_id: int) -> tuple[Portfolio, list[Portfolio]]:
    """The portfolio of whoever hands in and those of the others, locked, with what they wrote laid into them."""
    pages = pages_for(handin_id, portfolio_id, doing.now)
    everybody = settling.lock_members(pages[0], doing.now) if pages else []
    for page in pages:
        settling.settle_locked(doing, page.pk, everybody)
    mine = next((one for one in everybody if one.pk == portfolio_id), None)
    if mine is None:
        return locked_portfolio(portfolio_id), []
    return mine, [one for one in everybody if one is not mine]
