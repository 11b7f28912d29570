"""Artefacts that are texts written right here, and bringing back an earlier form of any text.

Decided here: a text is one artefact with one content, in however many pockets it lies; once it was handed in from any
of them it cannot be changed while that pocket is locked.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Refused
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import incoming
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.events.recording import deed
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios import counting, holds
from coatpeg.portfolios.evidence.commands import put, write_page, write_reflection
from coatpeg.portfolios.models import Artefact, Evidence, WrittenText
from coatpeg.portfolios.own import pages
from coatpeg.portfolios.texts import saving
from coatpeg.portfolios.writing import Place, filling_together, locked_portfolio, refuse_left, writing


def add_text(person: Person, portfolio_id: int, pocket_id: int, title: str, now: datetime) -> Evidence:
    """An empty text in a pocket, to be written right there."""
    name, _ = incoming.tidy_title(title, fallback="Text")
    with writing(person, portfolio_id, pocket_id, now) as place:
        artefact = Artefact.objects.create(portfolio=place.portfolio, kind=ArtefactKind.TEXT, title=name, made_at=now)
        WrittenText.objects.create(artefact=artefact, changed_at=now)
        return put(place, artefact)


def write(person: Person, artefact_id: int, draft: saving.Draft, now: datetime) -> WrittenText:
    """Save a text that is an artefact."""
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(saving.written_of(artefact_id).artefact.portfolio_id)
        require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
        refuse_left(portfolio, now)
        kept = saving.written_of(artefact_id)
        if kept.quoted:
            raise Refused(
                f"“{kept.artefact.title}” is a passage that several wrote: it stays as it was.",
                where=kept.artefact.title,
                fix="Say below it what it shows.",
            )
        mine = Evidence.objects.filter(artefact_id=artefact_id, portfolio=portfolio, removed_at=None)
        lying = mine.select_related("pocket__section")
        for evidence in lying:
            holds.refuse_if_held(portfolio, evidence.pocket)
        done = saving.save(portfolio, kept, person, draft, now)
        if done.changed:
            changed = [counting.refresh(portfolio, one.pocket, now) for one in lying]
            if done.begun or any(changed):
                doing.record(
                    "text_written",
                    portfolio.enrolment.group_id,
                    enrolment_id=portfolio.enrolment_id,
                    artefact=artefact_id,
                    version=kept.version,
                    text=text_digest(kept.text),
                )
            else:
                for one in lying:
                    doing.moved(portfolio.enrolment.group_id, portfolio.enrolment_id, one.pocket_id)
            for one in lying:
                with filling_together(Place(portfolio, one.pocket, doing)):
                    """Its words are the same wherever it lies."""
        return kept


def bring_back(person: Person, revision_id: int, version: int, now: datetime) -> int:
    """Write an earlier revision over the text as it stands; returns the new version.

    What stood there stays in the history.
    """
    found = saving.revision(person, revision_id)
    if found.page:
        page = found.page
        html = found.html or None
        return pages.write_page(person, page.pk, page.title, found.text, version, now, html=html, anew=True).version
    if found.written_text:
        draft = saving.Draft(found.text, version, found.html or None, anew=True)
        return write(person, found.written_text.artefact_id, draft, now).version
    evidence = found.evidence
    assert evidence is not None
    if evidence.artefact_id is not None:
        return write_reflection(person, evidence.pk, found.text, version, now, anew=True).version
    of = (person, evidence.portfolio_id, evidence.pocket_id, found.text, version, now)
    return write_page(*of, html=found.html or None, anew=True).version
