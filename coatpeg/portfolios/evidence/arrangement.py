"""Where artefacts lie: renamed, put into one more pocket, put in order, taken out.

Decided here: an artefact lies in a pocket once.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import incoming
from coatpeg.people.models import Person
from coatpeg.portfolios import artefacts, counting
from coatpeg.portfolios.evidence.commands import put
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import Artefact, Evidence
from coatpeg.portfolios.own import arranging
from coatpeg.portfolios.writing import RESTORABLE, writing


def rename(person: Person, artefact_id: int, title: str, now: datetime) -> Artefact:
    """Give an artefact another title; what was handed in keeps the one it had."""
    name, _ = incoming.tidy_title(title, fallback="")
    if not name:
        raise Invalid("The artefact has no title.", where="title", fix="Give it a few words.")
    found = Artefact.objects.filter(pk=artefact_id).first()
    if found is None:
        raise Gone("There is no such artefact.", fix="Go back to your pockets.")
    with arranging.arranging(person, found.portfolio_id, now) as (portfolio, doing):
        artefact = Artefact.objects.get(pk=artefact_id)
        if artefact.title != name:
            artefact.title = name
            artefact.save(update_fields=["title"])
            doing.record(
                "artefact_renamed",
                portfolio.enrolment.group_id,
                enrolment_id=portfolio.enrolment_id,
                artefact=artefact_id,
            )
        return artefact


def lying_in(person: Person, portfolio_id: int) -> list[dict[str, Any]]:
    """Every artefact of the student's own in a pocket, newest first, with the pockets it lies in: two queries."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    rows = Evidence.objects.filter(portfolio=portfolio, removed_at=None, artefact__isnull=False, of=None)
    found: dict[int, dict[str, Any]] = {}
    for one in rows.select_related("artefact__stored", "artefact__written_text", "pocket").order_by(
        "-artefact_id", "pk"
    ):
        assert one.artefact is not None
        line = found.setdefault(one.artefact.pk, {"artefact": artefacts.artefact_data(one.artefact), "pockets": []})
        line["pockets"].append({"id": one.pocket_id, "title": one.pocket.title, "evidence": one.pk})
    return list(found.values())


def put_again(person: Person, portfolio_id: int, pocket_id: int, artefact_id: int, now: datetime) -> Evidence:
    """Put an artefact of the portfolio into another pocket, with a reflection of its own there."""
    with writing(person, portfolio_id, pocket_id, now) as place:
        artefact = place.portfolio.artefacts.filter(pk=artefact_id).first()
        if artefact is None:
            raise Gone("There is no such artefact in your portfolio.", fix="Choose another one.")
        here = Evidence.objects.filter(portfolio=place.portfolio, pocket=place.pocket, artefact=artefact)
        if here.filter(removed_at=None).exists():
            raise Invalid(
                f"“{artefact.title}” lies in “{place.pocket.title}” already.",
                where=place.pocket.title,
                fix="Choose another one.",
            )
        return put(place, artefact)


def move(person: Person, evidence_id: int, before: int | None, now: datetime) -> None:
    """Put an artefact before another one in its pocket, or at the end."""
    named = Evidence.objects.filter(pk=evidence_id).first()
    if named is None:
        raise Gone("There is no such artefact.", fix="Go back to your pockets.")
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        order = [one.pk for one in counting.current(place.portfolio.pk, place.pocket.pk)]
        if evidence_id not in order or (before is not None and before not in order):
            raise Gone("The artefact, or the place to move it to, is gone.", fix="Load the pocket again.")
        if before == evidence_id:
            return
        order.remove(evidence_id)
        order.insert(order.index(before) if before in order else len(order), evidence_id)
        for position, pk in enumerate(order, 1):
            Evidence.objects.filter(pk=pk).update(position=position)
        counting.refresh(place.portfolio, place.pocket, now)
        place.record("evidence_moved", evidence=evidence_id)


def taken_out(person: Person, portfolio_id: int, now: datetime) -> list[dict[str, Any]]:
    """What was taken out and can be brought back, newest first: artefacts, log rows, loose pages. Three queries."""
    portfolio = portfolio_for(person, portfolio_id, Action.FILL_POCKET)
    since = now - RESTORABLE
    found = [
        *(
            ("artefact", one.pk, one.artefact.title if one.artefact else "", one.pocket.title, one.removed_at)
            for one in portfolio.evidence.filter(removed_at__gt=since, of=None).select_related("artefact", "pocket")
        ),
        *(
            (
                "row",
                one.pk,
                ", ".join(str(value) for value in one.values.values())[:80],
                one.pocket.title,
                one.removed_at,
            )
            for one in portfolio.log_rows.filter(removed_at__gt=since, of=None).select_related("pocket")
        ),
        *(
            ("page", one.pk, one.title, "", one.removed_at)
            for one in portfolio.loose_pages.filter(removed_at__gt=since)
        ),
    ]
    keys = ("what", "id", "title", "pocket", "at")
    return [dict(zip(keys, one, strict=True)) for one in sorted(found, key=lambda one: one[4] or now, reverse=True)]
