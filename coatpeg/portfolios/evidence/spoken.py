"""What a student says about an artefact instead of writing it: a recording as the reflection, with or without a
transcript.

Decided here: a recording can be made wherever there is a reflection; it counts as one where the pocket or an
adjustment allows it (``Wanted.spoken``). The text beside it is its transcript, and counts by itself as any reflection
does.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping
from coatpeg.people.models import Person
from coatpeg.portfolios import counting
from coatpeg.portfolios.artefacts import artefact_of
from coatpeg.portfolios.models import Evidence
from coatpeg.portfolios.writing import refuse_theirs, writing


def _named(evidence_id: int) -> Evidence:
    found = Evidence.objects.filter(pk=evidence_id).first()
    if found is None:
        raise Gone("There is no such artefact.", fix="Go back to your pockets.")
    return found


def said_about(person: Person, portfolio_id: int, pocket_id: int, evidence_id: int | None, now: datetime) -> Evidence:
    """The evidence that is to be spoken about.

    The named one, or a pocket's page, which is begun where there is none.
    """
    with writing(person, portfolio_id, pocket_id, now) as place:
        here = Evidence.objects.filter(portfolio=place.portfolio, pocket=place.pocket)
        if evidence_id is None and place.pocket.kind == PocketKind.PAGE:
            begun, _ = here.get_or_create(
                portfolio=place.portfolio, pocket=place.pocket, artefact=None, defaults={"changed_at": now}
            )
            return begun
        found = here.filter(pk=evidence_id or 0).first()
        if found is None:
            raise Gone("There is no such artefact in this pocket.", fix="Load the pocket again.")
        refuse_theirs(found)
        return found


def say(person: Person, evidence_id: int, kept: keeping.Kept, title: str, now: datetime) -> Evidence:
    """Let a recording be the reflection on an artefact; an earlier one is replaced and stays with the artefacts."""
    if kept.kind not in (ArtefactKind.SOUND, ArtefactKind.VIDEO):
        raise Invalid(f"“{title}” is no recording.", where="file", fix="Record it here, or choose a sound file.")
    named = _named(evidence_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        evidence = Evidence.objects.get(pk=evidence_id)
        refuse_theirs(evidence)
        if evidence.removed_at is not None:
            raise Gone("This artefact was taken out of the pocket.", fix="Bring it back first.")
        evidence.spoken = artefact_of(place, kept, title)
        evidence.changed_at = now
        evidence.save(update_fields=["spoken", "changed_at"])
        counting.refresh(place.portfolio, place.pocket, now)
        place.record("reflection_spoken", evidence=evidence.pk, artefact=evidence.spoken_id, kept=kept.stored.sha256)
        return evidence


def unsay(person: Person, evidence_id: int, now: datetime) -> Evidence:
    """Take the recording away from a reflection; its transcript stays."""
    named = _named(evidence_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        evidence = Evidence.objects.get(pk=evidence_id)
        refuse_theirs(evidence)
        if evidence.spoken_id is not None:
            place.record("reflection_unsaid", evidence=evidence.pk, artefact=evidence.spoken_id)
            evidence.spoken, evidence.changed_at = None, now
            evidence.save(update_fields=["spoken", "changed_at"])
            counting.refresh(place.portfolio, place.pocket, now)
        return evidence


def bring_back(person: Person, evidence_id: int, artefact_id: int, now: datetime) -> Evidence:
    """Let a recording of before be the reflection again (the undo of taking it away)."""
    named = _named(evidence_id)
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        evidence = Evidence.objects.get(pk=evidence_id)
        refuse_theirs(evidence)
        recordings = place.portfolio.artefacts.filter(kind__in=(ArtefactKind.SOUND, ArtefactKind.VIDEO))
        artefact = recordings.filter(pk=artefact_id).first()
        if artefact is None:
            raise Gone("There is no such recording in this portfolio.", fix="Record it again.")
        evidence.spoken, evidence.changed_at = artefact, now
        evidence.save(update_fields=["spoken", "changed_at"])
        counting.refresh(place.portfolio, place.pocket, now)
        place.record("reflection_spoken", evidence=evidence.pk, artefact=artefact.pk)
        return evidence
