"""A student takes a copy of an item into a pocket of their own, and puts it back as long as they have not begun.

Decided here: the same item may be taken into several pockets, but lies in each only once until it is taken out there.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.cupboard.items import refuse_misfit
from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.policy import Action
from coatpeg.cupboard import copies, laying, renewing
from coatpeg.cupboard.models import CupboardCopy
from coatpeg.cupboard.reading import shown_item
from coatpeg.events.recording import deed
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios import holds, quota
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.writing import locked_portfolio, refuse_left, writing


def take(person: Person, portfolio_id: int, pocket_id: int, item_id: int, now: datetime) -> CupboardCopy:
    """Take a copy; ``Invalid`` where the pocket takes no such thing, with one that does."""
    portfolio = portfolio_for(person, portfolio_id, Action.FILL_POCKET)
    item = shown_item(person, item_id, now)
    if item.group_id != portfolio.enrolment.group_id:
        raise Gone("This thing lies in the cupboard of another class.", fix="Take it in that class.")
    if item.stored is not None:
        quota.refuse_over(portfolio, item.stored.size)
    with writing(person, portfolio_id, pocket_id, now) as place:
        others = pockets_of(item.group_id).filter(retired_at=None).order_by("section__position", "position")
        refuse_misfit(laying.kind_of(item), laying.target_of(place.pocket), [laying.target_of(one) for one in others])
        had = CupboardCopy.objects.filter(item=item, portfolio=place.portfolio, pocket=place.pocket, newer=None)
        for one in copies.loaded(had.filter(content=item.content)):
            if copies.lies_there(one) and copies.as_it_came(one):
                return one
        if laying.full(place.pocket, [portfolio_id]):
            raise _full(place.pocket)
        (made,) = laying.lay(place.doing, item, place.pocket, [place.portfolio])
        made.opened_at = now
        made.save(update_fields=["opened_at"])
        return made


def put_back(person: Person, copy_id: int, now: datetime) -> CupboardCopy:
    """Put a copy back that is as it came. Again does nothing."""
    found = CupboardCopy.objects.filter(pk=copy_id).select_related("portfolio__enrolment").first()
    if found is None:
        raise Gone("There is no such copy.", fix="Go back to your pockets.")
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(found.portfolio_id)
        require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
        refuse_left(portfolio, now)
        (copy,) = copies.loaded(CupboardCopy.objects.filter(pk=copy_id))
        if not copies.lies_there(copy):
            return copy
        holds.refuse_if_held(portfolio, copy.pocket)
        if not copies.as_it_came(copy):
            raise Refused(
                f"You have begun with “{copy.item.title}”.",
                where=copy.pocket.title,
                fix="Take it out of the pocket instead: it lies in your bin then.",
            )
        copies.take_out(doing, [copy])
        return copy


def open_pocket(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> int:
    """A student opens a pocket: what was given is opened, and what is newer comes now where it waited.

    Returns how many copies that touched.
    """
    with writing(person, portfolio_id, pocket_id, now) as place:
        mine = CupboardCopy.objects.filter(portfolio=place.portfolio, pocket=place.pocket)
        opened = mine.filter(opened_at=None).update(opened_at=now)
        waiting = copies.loaded(renewing.behind(mine))
        return opened + renewing.renew_copies(place.doing, waiting)


def _full(pocket: Pocket) -> Invalid:
    return Invalid(
        f"“{pocket.title}” holds as many things as fit.", where=pocket.title, fix="Take something out of it first."
    )


def copy_data(copy: CupboardCopy) -> dict[str, Any]:
    """A copy as its student is told of it."""
    return {
        "id": copy.pk,
        "item": copy.item_id,
        "portfolio": copy.portfolio_id,
        "pocket": {"id": copy.pocket_id, "title": copy.pocket.title},
        "evidence": copy.evidence_id,
    }
