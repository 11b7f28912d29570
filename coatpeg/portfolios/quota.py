"""How much one portfolio, and all of a class together, may hold.

Counted are the bytes of every artefact, also of those that were taken out (they can be brought back) and the same file
twice where it lies in two portfolios: what a student is told does not depend on what others have. Files on their way
count with what was announced. Whoever is over it keeps everything; only more is refused.
"""

from __future__ import annotations

from django.conf import settings
from django.db.models import QuerySet, Sum

from coatpeg.core.errors import Refused
from coatpeg.files.models import Upload
from coatpeg.portfolios.models import Artefact, Portfolio

GIGABYTE = 1024**3


def refuse_over(portfolio: Portfolio, size: int) -> None:
    """Refuse ``size`` bytes more where a portfolio or its class would hold more than there is room for."""
    group = portfolio.enrolment.group_id
    mine = Artefact.objects.filter(portfolio=portfolio)
    coming = Upload.objects.filter(person=portfolio.enrolment.person_id, done_at=None, refused__isnull=True)
    on_the_way = coming.aggregate(all=Sum("size"))["all"] or 0
    if _bytes(mine) + on_the_way + size > settings.PORTFOLIO_QUOTA:
        raise _full("This portfolio", settings.PORTFOLIO_QUOTA)
    if _bytes(Artefact.objects.filter(portfolio__enrolment__group=group)) + size > settings.CLASS_QUOTA:
        raise _full("This class", settings.CLASS_QUOTA)


def _bytes(artefacts: QuerySet[Artefact]) -> int:
    return artefacts.aggregate(all=Sum("stored__size"))["all"] or 0


def _full(what: str, most: int) -> Refused:
    return Refused(
        f"{what} is full: it holds {most / GIGABYTE:.0f} GB, the most at this school.",
        where="file",
        fix="Put a link to it, or tell your teacher; everything that is in it stays.",
    )
