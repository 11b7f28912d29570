"""What a student does with the evidence in a pocket: add, write, remove, bring back."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Any

from django.core.files.base import File
from django.db.models import Max

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.portfolios import incoming
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Person
from coatpeg.portfolios import counting
from coatpeg.portfolios.artefacts import artefact_of, keep_file
from coatpeg.portfolios.models import Artefact, Evidence
from coatpeg.portfolios.texts import saving
from coatpeg.portfolios.writing import Place, refuse_long_gone, refuse_theirs, writing

MOST_IN_A_POCKET = 60
"""Artefacts in one pocket. Past this a page gets slow on a school tablet; three times what was ever asked."""


def add_file(
    person: Person, portfolio_id: int, pocket_id: int, content: File[Any], name: str, now: datetime
) -> tuple[Evidence, str]:
    """Put a picture or file into a pocket; returns the evidence and a note about its name (or "").

    The bytes are judged, cleaned and safe before anything is written to the database.
    """
    title, note = incoming.tidy_title(name)
    kept = keep_file(person, portfolio_id, content, title)
    return take_in(person, portfolio_id, pocket_id, kept, title, now), " ".join(filter(None, (note, kept.note)))


def take_in(
    person: Person, portfolio_id: int, pocket_id: int, kept: keeping.Kept, title: str, now: datetime, *, came: str = ""
) -> Evidence:
    """Put what is stored already into a pocket, as an artefact with that title.

    ``came`` are the hashes of what came, where that was more than one file.
    """
    with writing(person, portfolio_id, pocket_id, now) as place:
        artefact = artefact_of(place, kept, title)
        return put(place, artefact, came=came or kept.came_sha256, kept=kept.stored.sha256)


def add_link(
    person: Person, portfolio_id: int, pocket_id: int, link: str, title: str, now: datetime, *, even_so: bool = False
) -> Evidence:
    """Put a link into a pocket; its form is judged, nothing is fetched.

    ``even_so`` takes it also where its form gives cause for doubt.
    """
    given = Pocket.objects.filter(pk=pocket_id).values_list("directions", "starter", "variants").first()
    address = incoming.check_link(link, incoming.links_in(" ".join(map(str, given or ()))), even_so=even_so)
    name, _ = incoming.tidy_title(title, fallback="Link") if title.strip() else (address[: incoming.LONGEST_TITLE], "")
    with writing(person, portfolio_id, pocket_id, now) as place:
        artefact = Artefact.objects.create(
            portfolio=place.portfolio, kind=ArtefactKind.LINK, title=name, link=address, made_at=now
        )
        return put(place, artefact, came=text_digest(address))


def put(place: Place, artefact: Artefact, **hashes: str) -> Evidence:
    """Hang an artefact at the end of a pocket."""
    if place.pocket.kind == PocketKind.LOG:
        raise Invalid("A log takes rows.", where=place.pocket.title, fix="Write a row; a photo or file goes in a row.")
    if place.pocket.kind == PocketKind.LINKS and artefact.kind != ArtefactKind.LINK:
        raise Invalid("This pocket takes links only.", where=place.pocket.title, fix="Put it into another pocket.")
    if place.pocket.takes and not _taken(artefact.kind, place.pocket.takes):
        raise Invalid(
            f"“{place.pocket.title}” takes {' and '.join(f'{kind}s' for kind in place.pocket.takes)} only.",
            where=place.pocket.title,
            fix="Put it into another pocket, or add it in that form.",
        )
    here = Evidence.objects.filter(portfolio=place.portfolio, pocket=place.pocket)
    if here.filter(removed_at=None, of=None).count() >= MOST_IN_A_POCKET:
        raise Invalid(
            f"“{place.pocket.title}” holds {MOST_IN_A_POCKET} artefacts, which is the most.",
            where=place.pocket.title,
            fix="Take one out first.",
        )
    position = (here.aggregate(last=Max("position"))["last"] or 0) + 1
    evidence = Evidence.objects.create(
        portfolio=place.portfolio,
        pocket=place.pocket,
        artefact=artefact,
        position=position,
        changed_at=place.doing.now,
    )
    counting.refresh(place.portfolio, place.pocket, place.doing.now)
    place.record("artefact_added", evidence=evidence.pk, artefact=artefact.pk, **hashes)
    return evidence


def _taken(kind: str, takes: Sequence[str]) -> bool:
    """Photographed pages are pictures, sound and video recordings."""
    also = {ArtefactKind.SCAN: "picture", ArtefactKind.SOUND: "recording", ArtefactKind.VIDEO: "recording"}
    return kind in takes or also.get(ArtefactKind(kind), kind) in takes


def _own_evidence(evidence_id: int) -> Evidence:
    """The evidence a person names, before its portfolio is locked."""
    found = Evidence.objects.filter(pk=evidence_id).first()
    if found is None:
        raise Gone("There is no such artefact.", fix="Go back to your pockets.")
    return found


def write_reflection(
    person: Person,
    evidence_id: int,
    text: str,
    version: int,
    now: datetime,
    *,
    base: str | None = None,
    anew: bool = False,
) -> Evidence:
    """Save what a student says an artefact shows; the parameters are those of ``texts.Draft``."""
    named = _own_evidence(evidence_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        evidence = Evidence.objects.get(pk=evidence_id)
        refuse_theirs(evidence)
        if evidence.removed_at is not None:
            raise Gone("This artefact was taken out of the pocket.", fix="Bring it back to go on writing.")
        return _write(place, person, evidence, saving.Draft(text, version, base=base, anew=anew))


def write_page(
    person: Person,
    portfolio_id: int,
    pocket_id: int,
    text: str,
    version: int,
    now: datetime,
    *,
    html: str | None = None,
    base: str | None = None,
    anew: bool = False,
) -> Evidence:
    """Save the text of a page; version 0 is the page before its first save."""
    with writing(person, portfolio_id, pocket_id, now) as place:
        if place.pocket.kind != PocketKind.PAGE:
            raise Invalid(
                f"“{place.pocket.title}” is not a page.", where=place.pocket.title, fix="Add an artefact to it instead."
            )
        evidence, _ = Evidence.objects.get_or_create(
            portfolio=place.portfolio, pocket=place.pocket, artefact=None, defaults={"changed_at": now}
        )
        return _write(place, person, evidence, saving.Draft(text, version, html, base, anew))


def _write(place: Place, person: Person, evidence: Evidence, draft: saving.Draft) -> Evidence:
    done = saving.save(place.portfolio, evidence, person, draft, place.doing.now)
    if done.changed and (counting.refresh(place.portfolio, place.pocket, place.doing.now) or done.begun):
        place.record("text_written", evidence=evidence.pk, version=evidence.version, text=text_digest(evidence.text))
    elif done.changed:
        place.doing.moved(place.group_id, place.portfolio.enrolment_id, place.pocket.pk)
    return evidence


def remove_evidence(person: Person, evidence_id: int, now: datetime) -> Evidence:
    """Take an artefact out of its pocket; it can be brought back."""
    return _set_removed(person, evidence_id, now, removed=True)


def restore_evidence(person: Person, evidence_id: int, now: datetime) -> Evidence:
    """Bring back what was taken out, with its reflection, to its old place."""
    return _set_removed(person, evidence_id, now, removed=False)


def _set_removed(person: Person, evidence_id: int, now: datetime, *, removed: bool) -> Evidence:
    named = _own_evidence(evidence_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        evidence = Evidence.objects.select_related("artefact").get(pk=evidence_id)
        refuse_theirs(evidence)
        if evidence.artefact is None:
            raise Invalid("A page stays in its pocket.", where=place.pocket.title, fix="Empty its text instead.")
        if (evidence.removed_at is not None) == removed:
            return evidence
        refuse_long_gone(evidence.removed_at, now)
        evidence.removed_at = now if removed else None
        evidence.save(update_fields=["removed_at"])
        counting.refresh(place.portfolio, place.pocket, now)
        place.record("evidence_removed" if removed else "evidence_restored", evidence=evidence.pk)
        return evidence
