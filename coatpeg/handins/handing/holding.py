"""Holds of one hand-in over many students: let go of, and taken anew. Call with the portfolios of the class locked."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from django.db.models import QuerySet

from coatpeg.handins.models import HandIn, KeptFacts, Outcome, Submission
from coatpeg.portfolios.models import Portfolio, StandingHold

Held = tuple[int, int]
"""(enrolment id, pocket id)"""


def release(rows: QuerySet[StandingHold]) -> list[Held]:
    """Let go of holds; returns whose they were, in order."""
    held = sorted(rows.values_list("portfolio__enrolment_id", "pocket_id"))
    rows.delete()
    return held


def handed_in(handin: HandIn, pockets: Iterable[int]) -> list[Held]:
    """Who handed in these pockets with what stands of this hand-in now, and was not sent them back."""
    pockets = set(pockets)
    facts = KeptFacts.objects.filter(handin=handin, excused=False, newest__isnull=False)
    newest = [number for number in facts.values_list("newest", flat=True) if number]
    outcomes = Outcome.objects.filter(submission__in=newest, voided_at=None, kind=Outcome.Kind.SENT_BACK)
    back = {one.submission_id: set(one.pockets) for one in outcomes}
    found = []
    for one in Submission.objects.filter(pk__in=newest).only("enrolment_id", "snapshot"):
        given = {pocket["id"] for pocket in one.snapshot["pockets"]} & pockets - back.get(one.pk, set())
        found += [(one.enrolment_id, pocket) for pocket in given]
    return sorted(found)


def take(handin: HandIn, held: Iterable[Held], now: datetime) -> list[Held]:
    """Take holds anew, each with what was wanted when it was handed in; returns those that were taken.

    What the hand-in holds already is passed over.
    """
    there = set(StandingHold.objects.filter(handin_id=handin.pk).values_list("portfolio__enrolment_id", "pocket_id"))
    held = [one for one in held if one not in there]
    newest = dict(KeptFacts.objects.filter(handin=handin).values_list("enrolment_id", "newest"))
    wanted = {
        (one.enrolment_id, pocket["id"]): pocket["wanted"]
        for one in Submission.objects.filter(pk__in=[number for number in newest.values() if number])
        for pocket in one.snapshot["pockets"]
    }
    portfolios = dict(
        Portfolio.objects.filter(enrolment_id__in={one for one, _ in held}).values_list("enrolment_id", "pk")
    )
    taken = [one for one in held if one in wanted and one[0] in portfolios]
    StandingHold.objects.bulk_create(
        [
            StandingHold(
                portfolio_id=portfolios[enrolment],
                pocket_id=pocket,
                handin_id=handin.pk,
                title=handin.title,
                wanted=wanted[enrolment, pocket],
                since=now,
            )
            for enrolment, pocket in taken
        ],
        batch_size=500,
    )
    return taken
