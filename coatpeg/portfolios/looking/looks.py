"""When somebody of the staff last looked into a portfolio: what came since is new to them.

Decided here: looks closer together than an hour are one; what is new is what came since the one before. Looking
changes nothing but this.
"""

from __future__ import annotations

from datetime import datetime, timedelta

from coatpeg.people.models import Person
from coatpeg.portfolios.models import Look, Portfolio

ONE_LOOK = timedelta(hours=1)
"""A lesson: who comes back to a portfolio within it is still looking."""


def look(person: Person, portfolio: Portfolio, now: datetime) -> datetime | None:
    """Remember that this person, who may, looks; returns since when things are new to them (None: always)."""
    if portfolio.enrolment.person_id == person.pk:
        return None
    kept, made = Look.objects.get_or_create(person=person, portfolio=portfolio, defaults={"at": now})
    if not made:
        if now - kept.at > ONE_LOOK:
            kept.before = kept.at
        kept.at = now
        kept.save()
    return kept.before


def since(person: Person, portfolio: Portfolio) -> datetime | None:
    """Since when things are new to this person."""
    return Look.objects.filter(person=person, portfolio=portfolio).values_list("before", flat=True).first()
