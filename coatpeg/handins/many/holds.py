"""Holds over many pockets that no submission has frozen: by staff, or by a hand-in as it closes."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from coatpeg.core.handins.locking import STAFF
from coatpeg.handins.board.situation import Situation
from coatpeg.handins.handing.holding import Held
from coatpeg.handins.models import HandIn
from coatpeg.outlines.reading import wanted_as_data
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Portfolio, StandingHold


def hold(
    view: Situation,
    places: Iterable[Held],
    now: datetime,
    *,
    handin: HandIn | None = None,
    person: Person | None = None,
    reason: str = "",
) -> list[Held]:
    """Hold pockets, each with what is wanted of that student now; returns those that were not held so already."""
    holder = handin.pk if handin else STAFF
    members = {one.enrolment_id: one for one in view.members}
    pockets = {one.id: one for one in view.outline}
    portfolios = dict(Portfolio.objects.filter(enrolment_id__in=members).values_list("enrolment_id", "pk"))
    rows = StandingHold.objects.filter(handin_id=holder, portfolio__enrolment_id__in=members)
    there = set(rows.values_list("portfolio__enrolment_id", "pocket_id"))
    taken = [one for one in dict.fromkeys(places) if one not in there and one[0] in portfolios]
    StandingHold.objects.bulk_create(
        [
            StandingHold(
                portfolio_id=portfolios[enrolment],
                pocket_id=pocket,
                handin_id=holder,
                title=handin.title if handin else "",
                wanted=wanted_as_data(view.asked(members[enrolment], pockets[pocket], pockets[pocket].wanted)),
                since=now,
                person=person,
                reason=reason,
            )
            for enrolment, pocket in taken
        ],
        batch_size=500,
    )
    return taken
