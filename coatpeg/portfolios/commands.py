"""What a student does in a portfolio: add, write, remove, bring back.

Every command locks the portfolio row first, asks the policy, and refuses a locked, retired or unopened
pocket. Nobody but the student writes here.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.core.files.base import File
from django.db.models import Max

from coatpeg.core import intake
from coatpeg.core.calendar import SchoolCalendar
from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.filling import PocketKind
from coatpeg.core.policy import Action
from coatpeg.core.snapshots import text_digest
from coatpeg.events.recording import Deed, deed
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_for_student
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios import contents, files, holds, previews, texts
from coatpeg.portfolios.models import Artefact, Evidence, Portfolio

RESTORABLE = timedelta(days=30)
"""How long what was taken out can be brought back."""
MOST_IN_A_POCKET = 60
"""Artefacts in one pocket. Past this a page gets slow on a school tablet; three times what was ever asked."""


@dataclass(frozen=True, slots=True)
class Place:
    """A pocket of a portfolio, locked for writing within a deed."""

    portfolio: Portfolio
    pocket: Pocket
    doing: Deed

    @property
    def group_id(self) -> int:
        """The teaching group the portfolio is in."""
        return self.portfolio.enrolment.group_id

    def record(self, verb: str, **data: Any) -> None:
        """Record an event of this student about this pocket."""
        self.doing.record(verb, self.group_id, enrolment_id=self.portfolio.enrolment_id, pocket=self.pocket.pk, **data)


def locked_portfolio(portfolio_id: int) -> Portfolio:
    """The portfolio with its row locked: the first step of every write to a student's work."""
    # MariaDB has no FOR UPDATE OF: lock the one row first, then read it with what hangs on it.
    Portfolio.objects.select_for_update().filter(pk=portfolio_id).values_list("pk").first()
    found = Portfolio.objects.select_related("enrolment__group", "enrolment__person").filter(pk=portfolio_id).first()
    if found is None:
        raise Gone("There is no such portfolio.", fix="Go back to your pockets.")
    return found


@contextmanager
def writing(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> Iterator[Place]:
    """A deed on one pocket, after every check that does not depend on what is written.

    A log is not locked as a whole: only the rows that were handed in are (``portfolios.logs``).
    """
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
        pocket = pockets_of(portfolio.enrolment.group_id).filter(pk=pocket_id).first()
        if pocket is None:
            raise Gone("There is no such pocket in this portfolio.", fix="Go back to your pockets.")
        _refuse_closed(portfolio, pocket, school_calendar(), now)
        if pocket.kind != PocketKind.LOG:
            holds.refuse_if_held(portfolio, pocket)
        yield Place(portfolio, pocket, doing)


def _refuse_closed(portfolio: Portfolio, pocket: Pocket, calendar: SchoolCalendar, now: datetime) -> None:
    today = calendar.local_day(now)
    left = portfolio.enrolment.last
    if left is not None and left < today:
        raise Refused(f"You left this class on {left:%a %-d %b}.", fix="You can still read everything in it.")
    if pocket.retired_at is not None:
        raise Refused(f"“{pocket.title}” is no longer in use.", where=pocket.title, fix="You can still read it.")
    if pocket.opens and pocket.opens > today:
        raise Refused(f"“{pocket.title}” opens on {pocket.opens:%a %-d %b}.", where=pocket.title, fix="Come back then.")


def add_file(
    person: Person, portfolio_id: int, pocket_id: int, content: File[Any], name: str, now: datetime
) -> tuple[Evidence, str]:
    """Put a picture or file into a pocket; returns the evidence and a note about its name (or "").

    The bytes are judged, cleaned and safe before anything is written to the database.
    """
    title, note = intake.tidy_title(name)
    kept = keep_file(person, portfolio_id, content, title)
    return take_in(person, portfolio_id, pocket_id, kept, title, now), note


def take_in(person: Person, portfolio_id: int, pocket_id: int, kept: files.Kept, title: str, now: datetime) -> Evidence:
    """Put what is stored already into a pocket, as an artefact with that title."""
    with writing(person, portfolio_id, pocket_id, now) as place:
        artefact = artefact_of(place, kept, title)
        return put(place, artefact, came=kept.came_sha256, kept=kept.stored.sha256)


def keep_file(person: Person, portfolio_id: int, content: File[Any], title: str) -> files.Kept:
    """Judge, clean and store the bytes of somebody who may put work into this portfolio."""
    portfolio = Portfolio.objects.select_related("enrolment").filter(pk=portfolio_id).first()
    if portfolio is None:
        raise Gone("There is no such portfolio.", fix="Go back to your pockets.")
    require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
    return files.keep(content, title)


def artefact_of(place: Place, kept: files.Kept, title: str) -> Artefact:
    """The artefact that stored bytes make in a portfolio; how it is shown is made in the background."""
    if kept.kind in (Artefact.Kind.FILE, Artefact.Kind.SCAN):
        previews.ask(kept.stored, title, place.doing.now)
    return Artefact.objects.create(
        portfolio=place.portfolio,
        kind=kept.kind,
        title=title,
        stored=kept.stored,
        came_sha256=kept.came_sha256,
        made_at=place.doing.now,
    )


def add_link(
    person: Person, portfolio_id: int, pocket_id: int, link: str, title: str, now: datetime, *, even_so: bool = False
) -> Evidence:
    """Put a link into a pocket; its form is judged, nothing is fetched.

    ``even_so`` takes it also where its form gives cause for doubt.
    """
    given = Pocket.objects.filter(pk=pocket_id).values_list("directions", "starter", "variants").first()
    address = intake.check_link(link, intake.links_in(" ".join(map(str, given or ()))), even_so=even_so)
    name, _ = intake.tidy_title(title, fallback="Link") if title.strip() else (address[: intake.LONGEST_TITLE], "")
    with writing(person, portfolio_id, pocket_id, now) as place:
        artefact = Artefact.objects.create(
            portfolio=place.portfolio, kind=Artefact.Kind.LINK, title=name, link=address, made_at=now
        )
        return put(place, artefact, came=text_digest(address))


def put(place: Place, artefact: Artefact, **hashes: str) -> Evidence:
    """Hang an artefact at the end of a pocket."""
    if place.pocket.kind == PocketKind.LOG:
        raise Invalid("A log takes rows.", where=place.pocket.title, fix="Write a row; a photo or file goes in a row.")
    if place.pocket.kind == PocketKind.PAGE:
        raise Invalid("A page takes text only.", where=place.pocket.title, fix="Put it into another pocket.")
    if place.pocket.kind == PocketKind.LINKS and artefact.kind != Artefact.Kind.LINK:
        raise Invalid("This pocket takes links only.", where=place.pocket.title, fix="Put it into another pocket.")
    if place.pocket.takes and not _taken(artefact.kind, place.pocket.takes):
        raise Invalid(
            f"“{place.pocket.title}” takes {' and '.join(f'{kind}s' for kind in place.pocket.takes)} only.",
            where=place.pocket.title,
            fix="Put it into another pocket, or add it in that form.",
        )
    here = Evidence.objects.filter(portfolio=place.portfolio, pocket=place.pocket)
    if here.filter(removed_at=None).count() >= MOST_IN_A_POCKET:
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
    contents.refresh(place.portfolio, place.pocket, place.doing.now)
    place.record("artefact_added", evidence=evidence.pk, artefact=artefact.pk, **hashes)
    return evidence


def _taken(kind: str, takes: Sequence[str]) -> bool:
    """Photographed pages are pictures, sound and video recordings."""
    also = {Artefact.Kind.SCAN: "picture", Artefact.Kind.SOUND: "recording", Artefact.Kind.VIDEO: "recording"}
    return kind in takes or also.get(Artefact.Kind(kind), kind) in takes


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
        if evidence.removed_at is not None:
            raise Gone("This artefact was taken out of the pocket.", fix="Bring it back to go on writing.")
        return _write(place, person, evidence, texts.Draft(text, version, base=base, anew=anew))


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
        return _write(place, person, evidence, texts.Draft(text, version, html, base, anew))


def _write(place: Place, person: Person, evidence: Evidence, draft: texts.Draft) -> Evidence:
    done = texts.save(place.portfolio, evidence, person, draft, place.doing.now)
    if done.changed and (contents.refresh(place.portfolio, place.pocket, place.doing.now) or done.begun):
        place.record("text_written", evidence=evidence.pk, version=evidence.version, text=text_digest(evidence.text))
    return evidence


def remove_evidence(person: Person, evidence_id: int, now: datetime) -> Evidence:
    """Take an artefact out of its pocket; it can be brought back."""
    return _set_removed(person, evidence_id, now, removed=True)


def restore_evidence(person: Person, evidence_id: int, now: datetime) -> Evidence:
    """Bring back what was taken out, with its reflection, to its old place."""
    return _set_removed(person, evidence_id, now, removed=False)


def refuse_long_gone(removed_at: datetime | None, now: datetime) -> None:
    """What was taken out longer ago than it can be brought back."""
    if removed_at is not None and now - removed_at > RESTORABLE:
        raise Gone(
            f"This was taken out on {removed_at:%a %-d %b}, more than {RESTORABLE.days} days ago.",
            fix="Add it once more.",
        )


def _set_removed(person: Person, evidence_id: int, now: datetime, *, removed: bool) -> Evidence:
    named = _own_evidence(evidence_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        evidence = Evidence.objects.select_related("artefact").get(pk=evidence_id)
        if evidence.artefact is None:
            raise Invalid("A page stays in its pocket.", where=place.pocket.title, fix="Empty its text instead.")
        if (evidence.removed_at is not None) == removed:
            return evidence
        refuse_long_gone(evidence.removed_at, now)
        evidence.removed_at = now if removed else None
        evidence.save(update_fields=["removed_at"])
        contents.refresh(place.portfolio, place.pocket, now)
        place.record("evidence_removed" if removed else "evidence_restored", evidence=evidence.pk)
        return evidence
