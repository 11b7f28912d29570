"""What an upload for a portfolio becomes: an artefact in a pocket, what is said about one, or a newer form of one.

Registered as the purpose ``evidence``. Its metadata name ``portfolio`` and ``pocket``, and where wanted ``spoken``,
``evidence`` (what is spoken about) and ``replaces``.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.files import purposes
from coatpeg.files.keeping import Kept
from coatpeg.files.models import Upload
from coatpeg.files.purposes import Details, Purpose, number
from coatpeg.notices.putting import put
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.models import Person
from coatpeg.portfolios import counting, holds, quota
from coatpeg.portfolios.evidence import spoken, starters
from coatpeg.portfolios.evidence.commands import take_in
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import Evidence, Portfolio
from coatpeg.portfolios.writing import locked_portfolio


def begin(person: Person, pairs: Mapping[str, str], size: int, now: datetime) -> Details:
    """What is meant: portfolio and pocket, and which evidence is spoken about or replaced."""
    portfolio = portfolio_for(person, number(pairs, "portfolio"), Action.FILL_POCKET)
    quota.refuse_over(portfolio, size)
    pocket = pockets_of(portfolio.enrolment.group_id).filter(pk=number(pairs, "pocket")).first()
    if pocket is None:
        raise Gone("There is no such pocket in this portfolio.", fix="Go back to your pockets.")
    details: Details = {"portfolio": portfolio.pk, "pocket": pocket.pk}
    if pairs.get("spoken") == "1":
        about = number(pairs, "evidence") or None
        details["spoken_on"] = spoken.said_about(person, portfolio.pk, pocket.pk, about, now).pk
    if replaced := number(pairs, "replaces"):
        here = Evidence.objects.filter(pk=replaced, portfolio=portfolio, pocket=pocket, removed_at=None)
        if not here.exists():
            raise Gone("There is no such artefact in this pocket.", fix="Load the pocket again.")
        details["replaces"] = replaced
    return details


def allow(upload: Upload) -> None:
    """Whether whoever began it may still put work into the portfolio."""
    portfolio_for(upload.person, upload.details["portfolio"], Action.FILL_POCKET)


def put_in(upload: Upload, kept: Kept, came: str, now: datetime) -> Details:
    """Put what came up into its pocket; returns the evidence that it became."""
    person, details = upload.person, upload.details
    if "spoken_on" in details:
        evidence = spoken.say(person, details["spoken_on"], kept, upload.name, now)
    elif "replaces" in details:
        evidence = starters.replace(person, details["replaces"], kept, upload.name, now)
    else:
        evidence = take_in(person, details["portfolio"], details["pocket"], kept, upload.name, now, came=came)
    return {"evidence": evidence.pk}


def incomplete(upload: Upload, missing: int, now: datetime) -> None:
    """Tell the student that pages never arrived, and the others are one artefact without them."""
    portfolio = Portfolio.objects.select_related("enrolment").get(pk=upload.details["portfolio"])
    of = portfolio.enrolment
    with deed(None, now) as doing:
        put(doing, "pages_missing", of.group_id, enrolment=of.pk, pocket=upload.details["pocket"], missing=missing)


def may_wait(upload: Upload) -> bool:
    """Whether a picture may lie in its pocket before it is cleaned: not one that takes another's place."""
    return not {"spoken_on", "replaces"} & upload.details.keys()


def ready(upload: Upload, now: datetime) -> None:
    """Whoever looks at the pocket is told that the picture can be seen."""
    named = Evidence.objects.filter(pk=upload.result["evidence"])
    evidence = named.select_related("portfolio__enrolment", "artefact__stored").first()
    if evidence is not None and evidence.artefact is not None and evidence.artefact.stored is not None:
        of, kept = evidence.portfolio.enrolment, evidence.artefact.stored.sha256
        with deed(None, now) as doing:
            doing.record(
                "artefact_ready",
                of.group_id,
                enrolment_id=of.pk,
                pocket=evidence.pocket_id,
                evidence=evidence.pk,
                came=upload.came_sha256,
                kept=kept,
            )


def unreadable(upload: Upload, now: datetime) -> None:
    """A picture turned out to be broken: it leaves the pocket, unless it is handed in already; the student is told."""
    with deed(None, now) as doing:
        portfolio = locked_portfolio(upload.details["portfolio"])
        evidence = Evidence.objects.select_related("pocket").filter(pk=upload.result["evidence"]).first()
        of = portfolio.enrolment
        if evidence is None or evidence.pocket is None:
            return
        if evidence.removed_at is None and not holds.is_held(portfolio, evidence.pocket):
            evidence.removed_at = now
            evidence.save(update_fields=["removed_at"])
            counting.refresh(portfolio, evidence.pocket, now)
            doing.record(
                "evidence_removed", of.group_id, enrolment_id=of.pk, pocket=evidence.pocket_id, evidence=evidence.pk
            )
        put(
            doing,
            "picture_unreadable",
            of.group_id,
            enrolment=of.pk,
            pocket=upload.details["pocket"],
            evidence=evidence.pk,
        )


def register() -> None:
    """Take in what comes up for portfolios."""
    purposes.register("evidence", Purpose(begin, allow, put_in, incomplete, may_wait, ready, unreadable))
