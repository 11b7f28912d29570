"""Artefacts that are texts written right here, and putting what is in the portfolio already into another pocket.

Decided here: a text is one artefact with one content, in however many pockets it lies; once it was handed in from any
of them it cannot be changed while that pocket is locked. An artefact lies in a pocket once.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core import intake
from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.policy import Action
from coatpeg.core.snapshots import text_digest
from coatpeg.events.recording import deed
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios import contents, holds, own, texts
from coatpeg.portfolios.commands import RESTORABLE, locked_portfolio, put, write_page, write_reflection, writing
from coatpeg.portfolios.models import Artefact, Evidence, Portfolio, WrittenText


def add_text(person: Person, portfolio_id: int, pocket_id: int, title: str, now: datetime) -> Evidence:
    """An empty text in a pocket, to be written right there."""
    name, _ = intake.tidy_title(title, fallback="Text")
    with writing(person, portfolio_id, pocket_id, now) as place:
        artefact = Artefact.objects.create(portfolio=place.portfolio, kind=Artefact.Kind.TEXT, title=name, made_at=now)
        WrittenText.objects.create(artefact=artefact, changed_at=now)
        return put(place, artefact)


def write(person: Person, artefact_id: int, draft: texts.Draft, now: datetime) -> WrittenText:
    """Save a text that is an artefact."""
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(texts.written_of(artefact_id).artefact.portfolio_id)
        require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
        own.refuse_left(portfolio, now)
        kept = texts.written_of(artefact_id)
        lying = Evidence.objects.filter(artefact_id=artefact_id, removed_at=None).select_related("pocket__section")
        for evidence in lying:
            holds.refuse_if_held(portfolio, evidence.pocket)
        done = texts.save(portfolio, kept, person, draft, now)
        if done.changed:
            changed = [contents.refresh(portfolio, one.pocket, now) for one in lying]
            if done.begun or any(changed):
                doing.record(
                    "text_written",
                    portfolio.enrolment.group_id,
                    enrolment_id=portfolio.enrolment_id,
                    artefact=artefact_id,
                    version=kept.version,
                    text=text_digest(kept.text),
                )
        return kept


def rename(person: Person, artefact_id: int, title: str, now: datetime) -> Artefact:
    """Give an artefact another title; what was handed in keeps the one it had."""
    name, _ = intake.tidy_title(title, fallback="")
    if not name:
        raise Invalid("The artefact has no title.", where="title", fix="Give it a few words.")
    found = Artefact.objects.filter(pk=artefact_id).first()
    if found is None:
        raise Gone("There is no such artefact.", fix="Go back to your pockets.")
    with own.arranging(person, found.portfolio_id, now) as (portfolio, doing):
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
    """Every artefact that lies in a pocket of a portfolio, newest first, with the pockets it lies in: two queries."""
    portfolio = Portfolio.objects.filter(pk=portfolio_id).select_related("enrolment").first()
    if portfolio is None:
        raise Gone("There is no such portfolio.", fix="Go back to your pockets.")
    require_for_student(person, Action.SEE_PORTFOLIO, portfolio.enrolment)
    rows = Evidence.objects.filter(portfolio=portfolio, removed_at=None, artefact__isnull=False)
    found: dict[int, dict[str, Any]] = {}
    for one in rows.select_related("artefact__stored", "artefact__written", "pocket").order_by("-artefact_id", "pk"):
        assert one.artefact is not None
        line = found.setdefault(one.artefact.pk, {"artefact": contents.artefact_data(one.artefact), "pockets": []})
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
        order = [one.pk for one in contents.current(place.portfolio.pk, place.pocket.pk)]
        if evidence_id not in order or (before is not None and before not in order):
            raise Gone("The artefact, or the place to move it to, is gone.", fix="Load the pocket again.")
        if before == evidence_id:
            return
        order.remove(evidence_id)
        order.insert(order.index(before) if before in order else len(order), evidence_id)
        for position, pk in enumerate(order, 1):
            Evidence.objects.filter(pk=pk).update(position=position)
        contents.refresh(place.portfolio, place.pocket, now)
        place.record("evidence_moved", evidence=evidence_id)


def bring_back(person: Person, revision_id: int, version: int, now: datetime) -> int:
    """Write an earlier revision over the text as it stands; returns the new version.

    What stood there stays in the history.
    """
    found = texts.revision(person, revision_id)
    if found.page:
        page = found.page
        html = found.html or None
        return own.write_page(person, page.pk, page.title, found.text, version, now, html=html, anew=True).version
    if found.written:
        draft = texts.Draft(found.text, version, found.html or None, anew=True)
        return write(person, found.written.artefact_id, draft, now).version
    evidence = found.evidence
    assert evidence is not None
    if evidence.artefact_id is not None:
        return write_reflection(person, evidence.pk, found.text, version, now, anew=True).version
    of = (person, evidence.portfolio_id, evidence.pocket_id, found.text, version, now)
    return write_page(*of, html=found.html or None, anew=True).version


def taken_out(person: Person, portfolio_id: int, now: datetime) -> list[dict[str, Any]]:
    """What was taken out and can be brought back, newest first: artefacts, log rows, loose pages. Three queries."""
    portfolio = Portfolio.objects.filter(pk=portfolio_id).select_related("enrolment").first()
    if portfolio is None:
        raise Gone("There is no such portfolio.", fix="Go back to your pockets.")
    require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
    since = now - RESTORABLE
    found = [
        *(
            ("artefact", one.pk, one.artefact.title if one.artefact else "", one.pocket.title, one.removed_at)
            for one in portfolio.evidence.filter(removed_at__gt=since).select_related("artefact", "pocket")
        ),
        *(
            (
                "row",
                one.pk,
                ", ".join(str(value) for value in one.values.values())[:80],
                one.pocket.title,
                one.removed_at,
            )
            for one in portfolio.log_rows.filter(removed_at__gt=since).select_related("pocket")
        ),
        *(
            ("page", one.pk, one.title, "", one.removed_at)
            for one in portfolio.loose_pages.filter(removed_at__gt=since)
        ),
    ]
    keys = ("what", "id", "title", "pocket", "at")
    return [dict(zip(keys, one, strict=True)) for one in sorted(found, key=lambda one: one[4] or now, reverse=True)]
