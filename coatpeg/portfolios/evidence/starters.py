"""Starters that are files: every student's own copy of them, and the newer form that takes its place.

Decided here: in a pocket that many fill nobody has a copy; the starter lies with its directions. Else the copy is made
when the student first opens the pocket, once for each starter, also where it was taken out since; it is the very file,
so it is no work yet. A newer form takes the place of an artefact with its reflection and its order; the earlier one is
kept.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping
from coatpeg.outlines.dealing import version_of
from coatpeg.outlines.models import GivenFile, Pocket
from coatpeg.people.models import Person
from coatpeg.portfolios import counting
from coatpeg.portfolios.artefacts import artefact_of
from coatpeg.portfolios.evidence.commands import put
from coatpeg.portfolios.models import Evidence, Portfolio
from coatpeg.portfolios.writing import refuse_theirs, writing


def waiting(portfolio: Portfolio, pocket: Pocket) -> list[GivenFile]:
    """The starters of a pocket of which a portfolio has no copy yet: two queries where there is one."""
    if pocket.shared:
        return []
    rows = GivenFile.objects.filter(pocket=pocket, role=GivenFile.Role.STARTER, removed_at=None)
    given = list(rows.select_related("stored"))
    if any(one.version for one in given):
        version = version_of(pocket, portfolio.enrolment_id)
        given = [one for one in given if one.version in ("", version.key if version else "")]
    if not given:
        return []
    had = Evidence.objects.filter(portfolio=portfolio, pocket=pocket, artefact__isnull=False)
    have = {one for pair in had.values_list("artefact__stored_id", "starter_id") for one in pair if one}
    return [one for one in given if one.stored_id not in have]


def copy(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> int:
    """Give a student their own copies of a pocket's starters; returns how many were made. Again makes none."""
    with writing(person, portfolio_id, pocket_id, now) as place:
        made = 0
        for one in waiting(place.portfolio, place.pocket):
            kept = keeping.Kept(one.stored, one.came_sha256, ArtefactKind(one.kind))
            evidence = put(place, artefact_of(place, kept, one.title), starter=str(one.pk))
            Evidence.objects.filter(pk=evidence.pk).update(starter_id=one.stored_id)
            made += 1
        return made


def replace(person: Person, evidence_id: int, kept: keeping.Kept, title: str, now: datetime) -> Evidence:
    """Let a newer form take the place of an artefact."""
    named = Evidence.objects.filter(pk=evidence_id).first()
    if named is None:
        raise Gone("There is no such artefact.", fix="Go back to your pockets.")
    with writing(person, named.portfolio_id, named.pocket_id, now) as place:
        evidence = Evidence.objects.select_related("artefact").get(pk=evidence_id)
        refuse_theirs(evidence)
        if evidence.removed_at is not None or evidence.artefact is None:
            raise Gone("This artefact was taken out of the pocket.", fix="Bring it back first.")
        if evidence.artefact.kind in (ArtefactKind.LINK, ArtefactKind.TEXT):
            raise Invalid("A link or a text has no newer file.", where="file", fix="Add the file beside it.")
        before = evidence.artefact_id
        evidence.artefact, evidence.changed_at = artefact_of(place, kept, title), now
        evidence.save(update_fields=["artefact", "changed_at"])
        counting.refresh(place.portfolio, place.pocket, now)
        place.record(
            "artefact_replaced",
            evidence=evidence.pk,
            artefact=evidence.artefact_id,
            before=before,
            came=kept.came_sha256,
            kept=kept.stored.sha256,
        )
        return evidence
